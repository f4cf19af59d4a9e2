import { useState } from "react";
import type { KindPageDto, LetterTextRowDto } from "../../api/schema";
import { Alert, TextArea, TextField } from "../../ui/Fields";
import { post, put } from "../../ui/http";
import { useAct } from "../useAct";
import { Section } from "./Section";

/** All letters; a letter may be sent by routines of several kinds. */
export function Letters({ kind }: { kind: KindPageDto }) {
	const [open, setOpen] = useState<string>();
	return (
		<Section
			title="Letters"
			under={`${kind.letters.length}, shared by all kinds`}
		>
			<ul>
				{kind.letters.map((letter) => (
					<li key={letter.key} className="border-b border-hair py-1.5">
						<button
							type="button"
							className="font-[600]"
							aria-expanded={open === letter.key}
							onClick={() =>
								setOpen(open === letter.key ? undefined : letter.key)
							}
						>
							{letter.name}
						</button>{" "}
						<span className="under">
							{letter.usedBy.length > 0
								? `sent by ${letter.usedBy.join(", ")}`
								: "by hand"}
						</span>
						{open === letter.key && (
							<Letter
								key={letter.edition}
								letter={letter}
								blanks={kind.blanks}
								onDone={() => setOpen(undefined)}
							/>
						)}
					</li>
				))}
			</ul>
			{open === "new" ? (
				<Letter blanks={kind.blanks} onDone={() => setOpen(undefined)} />
			) : (
				<button
					type="button"
					className="btn mt-3"
					onClick={() => setOpen("new")}
				>
					Write a new letter
				</button>
			)}
		</Section>
	);
}

function Letter({
	letter,
	blanks,
	onDone,
}: {
	letter?: LetterTextRowDto;
	blanks: readonly string[];
	onDone: () => void;
}) {
	const [text, setText] = useState({
		name: letter?.name ?? "",
		subject: letter?.subject ?? "",
		body: letter?.body ?? "",
	});
	const act = useAct();
	async function keep() {
		const save = { ...text, edition: letter?.edition ?? 0 };
		const kept = await act.run(() =>
			letter
				? put(`/api/letter-texts/${letter.key}`, save)
				: post("/api/letter-texts", save),
		);
		if (kept) onDone();
	}
	return (
		<div className="grid gap-3 py-3">
			<TextField
				label="Name"
				value={text.name}
				wrong={act.refusal?.of("name")}
				onChange={(e) => setText({ ...text, name: e.target.value })}
			/>
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
			<Blanks blanks={blanks} />
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
			<div className="flex gap-2">
				<button
					type="button"
					className="btn btn-go"
					disabled={act.busy}
					onClick={keep}
				>
					Keep the letter
				</button>
				<button type="button" className="btn" onClick={onDone}>
					Close
				</button>
			</div>
		</div>
	);
}

/** The kind's contract; a contract already sent or signed never changes. */
export function Contract({ kind }: { kind: KindPageDto }) {
	const [text, setText] = useState(kind.contract);
	const act = useAct();
	return (
		<Section title="Contract" under={kind.contract.title}>
			<div className="grid gap-3">
				<TextField
					label="Title"
					value={text.title}
					wrong={act.refusal?.of("title")}
					onChange={(e) => setText({ ...text, title: e.target.value })}
				/>
				<TextArea
					label="Text"
					rows={14}
					value={text.body}
					wrong={act.refusal?.of("body") ?? act.refusal?.of("text")}
					onChange={(e) => setText({ ...text, body: e.target.value })}
				/>
				<Blanks blanks={kind.blanks} />
				{act.refusal && <Alert>{act.refusal.message}</Alert>}
				<div>
					<button
						type="button"
						className="btn btn-go"
						disabled={act.busy || text === kind.contract}
						onClick={() =>
							act.run(() =>
								put(`/api/kinds/${kind.id}/contract`, {
									...text,
									edition: kind.contract.edition,
								}),
							)
						}
					>
						Keep the contract
					</button>
				</div>
			</div>
		</Section>
	);
}

function Blanks({ blanks }: { blanks: readonly string[] }) {
	return (
		<p className="under">
			The record fills blanks in square brackets:{" "}
			{blanks.map((one) => `[${one}]`).join(" ")}. What stands by if it is not
			known goes behind it: [first name, or: there].
		</p>
	);
}
