import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../../api/client";
import type { KindDto, LetterTextRowDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Shown } from "../../ui/Shown";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { useUndo } from "../../ui/Undo";
import { LetterFiles } from "../record/LetterFiles";
import { useAct } from "../useAct";
import { OwnWords } from "./OwnWords";
import { Blanks } from "./Texts";

/** All letters of the studio; a letter may be sent by routines of several kinds. */
export function Letters({ kinds }: { kinds: readonly KindDto[] }) {
	const [open, setOpen] = useState<number | "new">();
	const letters = useQuery({
		queryKey: ["letter-texts"],
		queryFn: () => answer(api.GET("/api/letter-texts")),
	});
	return (
		<div className="grid content-start gap-4">
			<div className="flex items-baseline gap-3">
				<h2 className="text-[19px]">Letters</h2>
				<span className="text-soft">
					shared by all kinds, or in the words of one
				</span>
				<Button className="ml-auto" onClick={() => setOpen("new")}>
					Write a new letter
				</Button>
			</div>
			{open === "new" && (
				<div className="panel px-4">
					<Letter kinds={[]} onDone={() => setOpen(undefined)} />
				</div>
			)}
			<Shown query={letters}>
				{(data) => (
					<ul className="border-t-[1.5px] border-ink">
						{data.map((letter) => (
							<li key={letter.id} className="border-b border-hair py-1.5">
								<Button
									kind="line"
									className="font-[600]"
									data-walk
									aria-expanded={open === letter.id}
									onClick={() =>
										setOpen(open === letter.id ? undefined : letter.id)
									}
								>
									{letter.number && (
										<span className="num pr-2 text-soft">{letter.number}</span>
									)}
									{letter.name}
									{letter.kind && (
										<span className="font-normal">
											{" "}
											for {kindName(kinds, letter.kind)}
										</span>
									)}
								</Button>{" "}
								<span className="under">{used(letter)}</span>
								{open === letter.id && (
									<Letter
										key={letter.edition}
										letter={letter}
										kinds={
											letter.kind
												? []
												: kinds.filter(
														(kind) =>
															!data.some(
																(own) =>
																	own.key === letter.key &&
																	own.kind === kind.id,
															),
													)
										}
										onDone={() => setOpen(undefined)}
									/>
								)}
							</li>
						))}
					</ul>
				)}
			</Shown>
		</div>
	);
}

const kindName = (kinds: readonly KindDto[], id: number) =>
	kinds.find((kind) => kind.id === id)?.name ?? "a kind put away";

function used({ usedBy, files }: LetterTextRowDto): string {
	const by =
		usedBy.length === 0
			? "by hand"
			: usedBy.length > 2
				? `sent by ${usedBy.slice(0, 2).join(", ")} and ${usedBy.length - 2} more`
				: `sent by ${usedBy.join(", ")}`;
	return files.length === 0
		? by
		: `${by}, with ${files.length} file${files.length === 1 ? "" : "s"}`;
}

function Letter({
	letter,
	kinds,
	onDone,
}: {
	letter?: LetterTextRowDto;
	/** Kinds that may have words of their own in its place. */
	kinds: readonly KindDto[];
	onDone: () => void;
}) {
	const [text, setText] = useState({
		name: letter?.name ?? "",
		number: letter?.number ? String(letter.number) : "",
		subject: letter?.subject ?? "",
		body: letter?.body ?? "",
		files: letter?.files ?? [],
	});
	const act = useAct();
	const offer = useUndo();
	async function keep() {
		const save = {
			...text,
			number: text.number ? Number(text.number) : null,
			edition: letter?.edition ?? 0,
		};
		const kept = await act.run(() =>
			letter
				? answer(
						api.PUT("/api/letter-texts/{id}", {
							params: { path: { id: letter.id } },
							body: save,
						}),
					)
				: answer(api.POST("/api/letter-texts", { body: save })),
		);
		if (kept) onDone();
	}
	const remove = (removed: boolean) =>
		act.run(() =>
			answer(
				api.POST("/api/letter-texts/{id}/removed", {
					params: { path: { id: letter?.id ?? 0 } },
					body: { removed },
				}),
			),
		);
	return (
		<div className="grid gap-3 py-3">
			<div className="grid grid-cols-[1fr_100px] gap-3">
				<TextField
					label="Name, yours alone"
					value={text.name}
					wrong={act.refusal?.of("name")}
					onChange={(e) => setText({ ...text, name: e.target.value })}
				/>
				<TextField
					label="Number"
					inputMode="numeric"
					value={text.number}
					wrong={act.refusal?.of("number")}
					onChange={(e) =>
						setText({ ...text, number: e.target.value.replace(/\D/g, "") })
					}
				/>
			</div>
			<TextField
				label="Subject"
				value={text.subject}
				wrong={act.refusal?.of("subject")}
				onChange={(e) => setText({ ...text, subject: e.target.value })}
			/>
			<TextArea
				label="Text"
				rows={10}
				value={text.body}
				wrong={act.refusal?.of("body") ?? act.refusal?.of("text")}
				onChange={(e) => setText({ ...text, body: e.target.value })}
			/>
			<Blanks />
			<LetterFiles
				files={text.files}
				kept={[]}
				wrong={act.refusal?.of("files")}
				onChange={(files) => setText({ ...text, files: [...files] })}
			/>
			{letter && letter.usedBy.length > 0 && (
				<p className="under">
					Used by {letter.usedBy.join(", ")}. Letters that wait for your OK keep
					the text they were made with. Taken away, it keeps these routines off
					until they send another.
				</p>
			)}
			{letter && kinds.length > 0 && (
				<OwnWords letter={letter} kinds={kinds} onDone={onDone} />
			)}
			<Refused of={act.refusal} />
			<div className="flex gap-2">
				<Button kind="go" disabled={act.busy} onClick={keep}>
					Keep the letter
				</Button>
				<Button onClick={onDone}>Close</Button>
				{letter && (
					<Button
						className="ml-auto"
						disabled={act.busy}
						onClick={async () => {
							if (!(await remove(true))) return;
							offer({
								words: `“${letter.name}” taken away`,
								undo: () => remove(false),
							});
							onDone();
						}}
					>
						Take it away
					</Button>
				)}
			</div>
		</div>
	);
}
