import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { ReaderDto, ReviewReadDto } from "../../api/schema";
import { Alert, TextArea, TextField } from "../../ui/Fields";
import { get, post } from "../../ui/http";
import { Shown } from "../../ui/Shown";
import { useKept } from "../../ui/useKept";
import { Later } from "../Later";
import { useAct } from "../useAct";
import { Thumb } from "./Files";
import { MeetingPane } from "./Meetings";

/** An entry opened whole, on the sheet's side. */
export function Reader({
	project,
	name,
	onWrite,
	onClose,
}: {
	project: number;
	name: string;
	onWrite: (what: string) => void;
	onClose: () => void;
}) {
	const [what, id] = name.split(".");
	const entry = useQuery({
		queryKey: ["entry", project, name],
		queryFn: () =>
			get<ReaderDto>(`/api/projects/${project}/entries/${what}/${id}`),
	});
	return (
		<div className="panel p-4">
			<Shown query={entry}>
				{(data) => (
					<>
						<div className="flex items-start gap-3">
							<h2>{data.title}</h2>
							<button
								type="button"
								className="link ml-auto text-small"
								onClick={onClose}
							>
								Close
							</button>
						</div>
						<p className="under pb-3 break-words">{data.under}</p>
						{data.meeting ? (
							<MeetingPane
								key={`${data.meeting.id}${data.meeting.when}${data.meeting.state}`}
								project={project}
								meeting={data.meeting}
								onSummary={() => onWrite("summary")}
							/>
						) : data.heldLetter ? (
							<Held key={data.heldLetter} data={data} onClose={onClose} />
						) : (
							<Whole
								data={data}
								project={project}
								onWrite={onWrite}
								onClose={onClose}
							/>
						)}
					</>
				)}
			</Shown>
		</div>
	);
}

function Whole({
	data,
	project,
	onWrite,
	onClose,
}: {
	data: ReaderDto;
	project: number;
	onWrite: (what: string) => void;
	onClose: () => void;
}) {
	return (
		<>
			<div className="whitespace-pre-line">{data.text}</div>
			{data.quoted && (
				<details className="pt-3 text-soft">
					<summary>What they answered to</summary>
					<div className="pt-2 whitespace-pre-line">{data.quoted}</div>
				</details>
			)}
			<dl>
				{data.answers.map((answer) => (
					<div key={answer.question} className="pb-2">
						<dt className="under">{answer.question}</dt>
						<dd className="whitespace-pre-line">{answer.text}</dd>
					</div>
				))}
				{data.sums.map((sum) => (
					<div
						key={sum.label}
						className="flex gap-3 border-t border-hair py-1.5 text-[14.3px]"
					>
						<dt>{sum.label}</dt>
						<dd className="num ml-auto whitespace-nowrap">{sum.amount}</dd>
					</div>
				))}
			</dl>
			{data.letter && (
				<Letter letter={data.letter} onWrite={onWrite} onClose={onClose} />
			)}
			{data.review && <Round review={data.review} onDone={onClose} />}
			{data.voidsPayment && (
				<Taken project={project} payment={data.voidsPayment} onDone={onClose} />
			)}
			{data.file && (
				<p className="pt-3">
					<a className="btn" href={data.file}>
						Open the PDF
					</a>
				</p>
			)}
		</>
	);
}

/** What belongs to a letter besides its text: its files, an answer, taking it back. */
function Letter({
	letter,
	onWrite,
	onClose,
}: {
	letter: NonNullable<ReaderDto["letter"]>;
	onWrite: (what: string) => void;
	onClose: () => void;
}) {
	const act = useAct();
	const [laidOut, setLaidOut] = useState(false);
	return (
		<div className="grid gap-3 pt-3">
			{laidOut && (
				<iframe
					title="The letter as it was laid out"
					sandbox="allow-popups"
					className="h-[60vh] w-full border border-hair bg-white"
					src={`/api/letters/${letter.id}/html`}
				/>
			)}
			{letter.problem && (
				<p className="font-[650]">It was refused: {letter.problem}</p>
			)}
			{letter.files.length > 0 && (
				<ul aria-label="Files">
					{letter.files.map((file) => (
						<li key={file.address}>
							<a className="link" href={file.address}>
								{file.name}
							</a>
						</li>
					))}
				</ul>
			)}
			<div className="flex flex-wrap gap-2">
				{letter.canAnswer && (
					<button
						type="button"
						className="btn btn-go"
						onClick={() => onWrite(`answer.${letter.id}`)}
					>
						Answer it
					</button>
				)}
				{letter.canWriteAgain && (
					<button
						type="button"
						className="btn btn-go"
						onClick={() => onWrite("letter")}
					>
						Write it again
					</button>
				)}
				{letter.canTakeBack && (
					<button
						type="button"
						className="btn"
						disabled={act.busy}
						onClick={async () => {
							if (
								await act.run(() => post(`/api/letters/${letter.id}/take-back`))
							)
								onClose();
						}}
					>
						Take it back
					</button>
				)}
				{letter.hasHtml && (
					<button
						type="button"
						className="btn"
						aria-expanded={laidOut}
						onClick={() => setLaidOut(!laidOut)}
					>
						{laidOut ? "Only its words" : "As it was laid out"}
					</button>
				)}
				<a className="btn" href={`/api/letters/${letter.id}.eml`}>
					Keep as a mail file
				</a>
			</div>
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
		</div>
	);
}

/** A letter that waits for an OK: send, change, put off, or skip. */
function Held({ data, onClose }: { data: ReaderDto; onClose: () => void }) {
	const [draft, change, forget] = useKept(`held:${data.heldLetter}`, {
		subject: data.title,
		body: data.text.replace(
			"[their own link, put in when it leaves]",
			"[page link]",
		),
	});
	const act = useAct();
	const [later, setLater] = useState(false);
	const letter = `/api/letters/${data.heldLetter}`;
	return (
		<div className="grid gap-3">
			{data.gaps && <p className="font-[650]">It still lacks: {data.gaps}</p>}
			{data.letter?.problem && (
				<p className="font-[650]">It was refused: {data.letter.problem}</p>
			)}
			<TextField
				label="Subject"
				value={draft.subject}
				wrong={act.refusal?.of("subject")}
				onChange={(e) => change({ ...draft, subject: e.target.value })}
			/>
			<TextArea
				label="Text"
				rows={12}
				value={draft.body}
				wrong={act.refusal?.of("body")}
				onChange={(e) => change({ ...draft, body: e.target.value })}
			/>
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
			<div className="flex gap-2">
				<button
					type="button"
					className="btn btn-go"
					disabled={act.busy}
					onClick={async () => {
						if (await act.run(() => post(`${letter}/release`, draft))) {
							forget();
							onClose();
						}
					}}
				>
					Send
				</button>
				<button
					type="button"
					className="btn"
					disabled={act.busy}
					onClick={async () => {
						if (await act.run(() => post(`${letter}/skip`))) {
							forget();
							onClose();
						}
					}}
				>
					Skip
				</button>
				{data.letter?.canWait && (
					<button
						type="button"
						className="btn"
						aria-expanded={later}
						onClick={() => setLater(!later)}
					>
						Later
					</button>
				)}
			</div>
			{later && data.heldLetter && (
				<Later
					letter={data.heldLetter}
					text={draft}
					onDone={() => {
						forget();
						onClose();
					}}
				/>
			)}
		</div>
	);
}

/** A round of review: what was put up and what was said of it. */
function Round({
	review,
	onDone,
}: {
	review: ReviewReadDto;
	onDone: () => void;
}) {
	const act = useAct();
	const run = (how: string) => async () => {
		if (await act.run(() => post(`/api/reviews/${review.id}/${how}`))) onDone();
	};
	return (
		<div className="grid gap-2">
			{review.files.map((file) => (
				<a
					key={file.id}
					className="flex items-center gap-3"
					href={`/api/files/${file.id}`}
				>
					<Thumb
						address={
							file.hasPreview ? `/api/files/${file.id}/preview` : undefined
						}
						name={file.name}
					/>
					<span>
						<span className="link">{file.name}</span>
						<span className="under block">{file.about}</span>
					</span>
				</a>
			))}
			{review.said.map((said) => (
				<p
					key={`${said.question}${said.text}`}
					className="border-l-2 border-ink pl-3 whitespace-pre-line"
				>
					{said.text}
					<span className="under block">{said.question}</span>
				</p>
			))}
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
			{review.state === "Open" && (
				<div>
					<button
						type="button"
						className="btn"
						disabled={act.busy}
						onClick={run("withdraw")}
					>
						Take this round back
					</button>
				</div>
			)}
			{review.state === "Approved" && (
				<div>
					<button
						type="button"
						className="btn"
						disabled={act.busy}
						onClick={run("reopen")}
					>
						The approval does not hold
					</button>
				</div>
			)}
		</div>
	);
}

/** A payment that was recorded by mistake. */
function Taken({
	project,
	payment,
	onDone,
}: {
	project: number;
	payment: number;
	onDone: () => void;
}) {
	const act = useAct();
	return (
		<div className="grid gap-2 pt-2">
			<p className="text-soft">
				Recorded by mistake? Taken back, it counts nowhere any more; reminders
				that are still ahead go on, those missed meanwhile do not go out.
			</p>
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
			<div>
				<button
					type="button"
					className="btn"
					disabled={act.busy}
					onClick={async () => {
						if (
							await act.run(() =>
								post(`/api/projects/${project}/payments/${payment}/void`),
							)
						)
							onDone();
					}}
				>
					Take this payment back
				</button>
			</div>
		</div>
	);
}
