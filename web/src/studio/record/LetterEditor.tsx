import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import type {
	LetterDeskDto,
	LetterFileDto,
	PreviewDto,
	RecordDto,
	SentDto,
} from "../../api/schema";
import { Alert, Select, TextArea, TextField } from "../../ui/Fields";
import { get, post } from "../../ui/http";
import { Shown } from "../../ui/Shown";
import { useKept } from "../../ui/useKept";
import { useAct } from "../useAct";
import { LetterFiles } from "./LetterFiles";

type Draft = {
	subject: string;
	body: string;
	template?: string;
	files?: readonly LetterFileDto[];
	sendAt?: string;
};

type Props = {
	record: RecordDto;
	/** The letter it begins with. */
	begin?: string;
	/** The client's letter it answers. */
	answers?: number;
	onClose: () => void;
};

/** A letter to the client, from a template or from nothing, with the earlier exchange below. */
export function LetterEditor(props: Props) {
	const { record } = props;
	const desk = useQuery({
		queryKey: ["letter-desk", record.id],
		queryFn: () => get<LetterDeskDto>(`/api/projects/${record.id}/letter`),
	});
	return (
		<div className="panel p-4">
			<Shown query={desk}>{(data) => <Editor {...props} desk={data} />}</Shown>
		</div>
	);
}

function beginning(desk: LetterDeskDto, first?: string, answers?: number) {
	const template = desk.templates.find((one) => one.key === first);
	if (template)
		return {
			subject: template.openSubject,
			body: template.openBody,
			template: template.key,
			files: template.files,
		};
	const letter = desk.earlier.find((one) => one.id === answers);
	const subject = letter
		? `Re: ${letter.subject.replace(/^(re:\s*)+/i, "")}`
		: "";
	return {
		subject,
		body: `\n\n${desk.signature}`,
	};
}

function Editor({
	record,
	begin: first,
	answers,
	desk,
	onClose,
}: Props & { desk: LetterDeskDto }) {
	const [draft, change, forget] = useKept<Draft>(
		`letter:${record.id}${first ?? ""}${answers ?? ""}`,
		beginning(desk, first, answers),
	);
	const [sent, setSent] = useState<SentDto>();
	const [later, setLater] = useState(Boolean(draft.sendAt));
	const act = useAct();
	const preview = usePreview(record.id, draft);

	async function send() {
		const done = await act.run(async () =>
			setSent(
				await post<SentDto>(`/api/projects/${record.id}/letter`, {
					subject: draft.subject,
					body: draft.body,
					template: draft.template ?? null,
					files: draft.files ?? [],
					sendAt: later && draft.sendAt ? `${draft.sendAt}:00` : null,
					answers: answers ?? null,
				}),
			),
		);
		if (done) forget();
	}
	if (sent)
		return (
			<Sent
				sent={sent}
				later={later}
				onClose={onClose}
				onBack={() => setSent(undefined)}
			/>
		);
	const gaps = preview?.gaps ?? [];
	return (
		<div className="grid gap-3">
			<div className="flex items-start">
				<h2>
					{answers ? "Answer" : "Letter"} to {desk.to}
				</h2>
				<button
					type="button"
					className="link ml-auto text-small"
					onClick={onClose}
				>
					Close
				</button>
			</div>
			<p className="under -mt-2">
				about {record.title}, to {desk.mail ?? "no address yet"}
			</p>
			<Beginning desk={desk} draft={draft} onChange={change} />
			<TextField
				label="Subject"
				value={draft.subject}
				wrong={act.refusal?.of("subject")}
				onChange={(e) => change({ ...draft, subject: e.target.value })}
			/>
			<TextArea
				label="Text"
				rows={11}
				value={draft.body}
				wrong={act.refusal?.of("body") ?? act.refusal?.of("text")}
				onChange={(e) => change({ ...draft, body: e.target.value })}
			/>
			{preview?.pieces.some((piece) => piece.blank) && (
				<Filled preview={preview} />
			)}
			{gaps.length > 0 && (
				<p role="status" className="border-l-4 border-ink pl-3 font-[650]">
					Not filled yet: {gaps.join(", ")}
				</p>
			)}
			<LetterFiles
				files={draft.files ?? []}
				kept={desk.kept}
				wrong={act.refusal?.of("files")}
				onChange={(files) => change({ ...draft, files })}
			/>
			{later && (
				<TextField
					label="Goes out"
					type="datetime-local"
					hint="in the studio's time; until then it can be taken back"
					value={draft.sendAt ?? ""}
					wrong={act.refusal?.of("later")}
					onChange={(e) => change({ ...draft, sendAt: e.target.value })}
				/>
			)}
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
			<div className="flex gap-2">
				<button
					type="button"
					className="btn btn-go"
					disabled={act.busy || (later && !draft.sendAt)}
					onClick={send}
				>
					{later ? "Send it then" : "Send the letter"}
				</button>
				<button
					type="button"
					className="btn"
					aria-expanded={later}
					onClick={() => {
						if (!later && !draft.sendAt)
							change({ ...draft, sendAt: desk.tomorrow });
						setLater(!later);
					}}
				>
					{later ? "Send it now instead" : "Send later"}
				</button>
			</div>
			<Earlier desk={desk} answers={answers} />
		</div>
	);
}

/** One of the studio's letters to begin with, by its name or its number. */
function Beginning({
	desk,
	draft,
	onChange,
}: {
	desk: LetterDeskDto;
	draft: Draft;
	onChange: (draft: Draft) => void;
}) {
	const [number, setNumber] = useState("");
	function begin(key?: string) {
		const template = desk.templates.find((one) => one.key === key);
		if (template)
			onChange({
				...draft,
				subject: template.openSubject,
				body: template.openBody,
				template: template.key,
				files: template.files,
			});
	}
	return (
		<div className="grid grid-cols-[84px_1fr] gap-3">
			<TextField
				label="Number"
				inputMode="numeric"
				value={number}
				onChange={(e) => {
					setNumber(e.target.value);
					begin(
						desk.templates.find((one) => String(one.number) === e.target.value)
							?.key,
					);
				}}
			/>
			<Select
				label="Begin with"
				value={draft.template ?? ""}
				onChange={(e) => begin(e.target.value)}
			>
				<option value="">A letter of yours</option>
				{desk.templates.map((template) => (
					<option key={template.key} value={template.key}>
						{template.number ? `${template.number}  ` : ""}
						{template.name}
					</option>
				))}
			</Select>
		</div>
	);
}

/** The letter as it will read: what the record fills is marked by its blank's name. */
function Filled({ preview }: { preview: PreviewDto }) {
	return (
		<details open className="border-l-2 border-hair pl-3 text-[14px]">
			<summary className="text-soft">As it will read</summary>
			<p className="pt-1 whitespace-pre-line">
				{preview.pieces.map((piece, i) =>
					piece.blank ? (
						<span
							key={i}
							title={piece.blank}
							className={
								piece.sort === "Gap"
									? "border border-dashed border-ink px-1 font-[650]"
									: "border-b border-dotted border-soft"
							}
						>
							{piece.text}
							{piece.sort === "StandBy" && (
								<span className="text-small text-soft"> (stands by)</span>
							)}
						</span>
					) : (
						<span key={i}>{piece.text}</span>
					),
				)}
			</p>
		</details>
	);
}

function Earlier({ desk, answers }: { desk: LetterDeskDto; answers?: number }) {
	if (desk.earlier.length === 0) return null;
	return (
		<section className="border-t border-hair pt-3">
			<h3>Earlier</h3>
			{desk.earlier.map((letter, i) => (
				<details
					key={letter.id}
					open={answers ? letter.id === answers : i === 0}
					className="pt-2 text-[14px]"
				>
					<summary>
						{letter.who}, {letter.when}: {letter.subject}
					</summary>
					<p className="pt-1 whitespace-pre-line text-soft">{letter.text}</p>
				</details>
			))}
		</section>
	);
}

/** Asks the server how it reads and what is still empty, a moment after the last key. */
function usePreview(
	project: number,
	{ subject, body }: Draft,
): PreviewDto | undefined {
	const [preview, setPreview] = useState<PreviewDto>();
	useEffect(() => {
		if (!body) return setPreview(undefined);
		const timer = setTimeout(
			() =>
				post<PreviewDto>(`/api/projects/${project}/letter/preview`, {
					subject,
					body,
				}).then(setPreview, () => setPreview(undefined)),
			250,
		);
		return () => clearTimeout(timer);
	}, [project, subject, body]);
	return preview;
}

/** It was sent, and can be taken back for a moment. */
export function Sent({
	sent,
	later,
	onClose,
	onBack,
}: {
	sent: SentDto;
	later?: boolean;
	onClose: () => void;
	onBack: () => void;
}) {
	const act = useAct();
	const gone = useGone(sent, later, onClose);
	return (
		<div role="status" className="grid gap-3">
			<h2>
				{later
					? "It goes out later"
					: gone
						? "It leaves the house"
						: "It is on its way"}
			</h2>
			<p>
				{later
					? "It stands on the line and can be taken back until then."
					: gone
						? "It cannot be taken back any more. The line says when it was sent."
						: `You can take it back for ${sent.holdSeconds} seconds; then it leaves the house.`}
			</p>
			<div className="flex gap-2">
				<button type="button" className="btn btn-go" onClick={onClose}>
					Close
				</button>
				{!gone && (
					<button
						type="button"
						className="btn"
						disabled={act.busy}
						onClick={async () => {
							if (
								await act.run(() =>
									post(`/api/letters/${sent.letter}/take-back`),
								)
							)
								onBack();
						}}
					>
						Take it back
					</button>
				)}
			</div>
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
		</div>
	);
}

const shownFor = 4;

/** Whether the time to take a letter back is over; a little later the sheet comes back by itself. */
function useGone(
	sent: SentDto,
	later: boolean | undefined,
	onClose: () => void,
) {
	const [gone, setGone] = useState(false);
	const close = useRef(onClose);
	close.current = onClose;
	useEffect(() => {
		if (later) return;
		const leaves = setTimeout(() => setGone(true), sent.holdSeconds * 1000);
		const closes = setTimeout(
			() => close.current(),
			(sent.holdSeconds + shownFor) * 1000,
		);
		return () => {
			clearTimeout(leaves);
			clearTimeout(closes);
		};
	}, [sent, later]);
	return gone;
}
