import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import type {
	MeetingDto,
	MeetingKindDto,
	RecordDto,
	SentDto,
} from "../../api/schema";
import { Alert, Select, TextArea, TextField } from "../../ui/Fields";
import { get, post, put } from "../../ui/http";
import { useAct } from "../useAct";
import { Block } from "./Block";
import { Carried } from "./Carried";

const useKinds = () =>
	useQuery({
		queryKey: ["meeting-kinds"],
		queryFn: () => get<MeetingKindDto[]>("/api/meeting-kinds"),
	});

/** Meetings of the project, and the two ways to a new one: the client chooses, or it is set. */
export function Meetings({
	record,
	onOffer,
	onOpen,
}: {
	record: RecordDto;
	onOffer: () => void;
	onOpen: (meeting: number) => void;
}) {
	const [setting, setSetting] = useState(false);
	const act = useAct();
	const standing = record.meetings.filter((one) => one.isStanding);
	return (
		<Block
			title="Meetings"
			aside={
				!record.ended && (
					<span className="flex gap-3">
						<button type="button" className="link" onClick={onOffer}>
							let them choose
						</button>
						<button
							type="button"
							className="link"
							aria-expanded={setting}
							onClick={() => setSetting(!setting)}
						>
							set one
						</button>
					</span>
				)
			}
		>
			{record.offered && (
				<p className="text-[14.3px]">
					{record.offered}: with the client, who has not chosen a time yet.{" "}
					<button
						type="button"
						className="link text-small"
						disabled={act.busy}
						onClick={() =>
							act.run(() =>
								post(`/api/projects/${record.id}/meetings/offer/back`),
							)
						}
					>
						take it back
					</button>
				</p>
			)}
			{standing.map((meeting) => (
				<button
					key={meeting.id}
					type="button"
					className="block w-full py-1 text-left text-[14.3px] hover:underline"
					onClick={() => onOpen(meeting.id)}
				>
					<b className="font-[650]">{meeting.name}</b>, {meeting.when}{" "}
					<span className="text-soft">{meeting.state}</span>
				</button>
			))}
			{setting && (
				<SetMeeting record={record} onDone={() => setSetting(false)} />
			)}
		</Block>
	);
}

function SetMeeting({
	record,
	onDone,
}: {
	record: RecordDto;
	onDone: () => void;
}) {
	const kinds = useKinds();
	const [said, setSaid] = useState({ kind: "", start: "" });
	const act = useAct();
	const kind = said.kind || String(kinds.data?.[0]?.id ?? "");
	async function keep(event: FormEvent) {
		event.preventDefault();
		const done = await act.run(() =>
			post(`/api/projects/${record.id}/meetings`, {
				kind: Number(kind),
				start: `${said.start}:00`,
			}),
		);
		if (done) onDone();
	}
	return (
		<form onSubmit={keep} className="grid gap-2 pt-1">
			<Select
				label="Meeting"
				value={kind}
				onChange={(e) => setSaid({ ...said, kind: e.target.value })}
			>
				{kinds.data?.map((one) => (
					<option key={one.id} value={one.id}>
						{one.name}
					</option>
				))}
			</Select>
			<TextField
				label="When, by the studio's clock"
				type="datetime-local"
				value={said.start}
				wrong={act.refusal?.of("start") ?? act.refusal?.message}
				onChange={(e) => setSaid({ ...said, start: e.target.value })}
			/>
			<div>
				<button
					type="submit"
					className="btn btn-go"
					disabled={act.busy || !said.start}
				>
					Set the meeting
				</button>
			</div>
		</form>
	);
}

/** Lets the client choose a time, with a letter. */
export function OfferMeeting({
	record,
	onClose,
}: {
	record: RecordDto;
	onClose: () => void;
}) {
	const kinds = useKinds();
	const [chosen, setChosen] = useState("");
	const usual = kinds.data?.find(
		(one) => (one.when === "AfterBooking") === record.booked,
	);
	const kind = chosen || String(usual?.id ?? kinds.data?.[0]?.id ?? "");
	return (
		<Carried
			project={record.id}
			title="Let them choose a time"
			template="meeting-choice"
			button="Send the choice of times"
			disabled={!kind}
			onClose={onClose}
			send={(letter) =>
				post<SentDto>(`/api/projects/${record.id}/meetings/offer`, {
					kind: Number(kind),
					...letter,
				})
			}
		>
			{() => (
				<Select
					label="Meeting"
					value={kind}
					onChange={(e) => setChosen(e.target.value)}
				>
					{kinds.data?.map((one) => (
						<option key={one.id} value={one.id}>
							{one.name}, {one.minutes} minutes
						</option>
					))}
				</Select>
			)}
		</Carried>
	);
}

/** A meeting opened whole: agenda, answers, private notes, moving and cancelling. */
export function MeetingPane({
	project,
	meeting,
	onSummary,
}: {
	project: number;
	meeting: MeetingDto;
	onSummary: () => void;
}) {
	const [notes, setNotes] = useState(meeting.notes);
	const [agenda, setAgenda] = useState(meeting.agenda);
	const [start, setStart] = useState<string>();
	const act = useAct();
	const base = `/api/projects/${project}/meetings/${meeting.id}`;
	return (
		<div className="grid gap-3">
			<p className="break-words">{meeting.place}</p>
			{meeting.answers.map((answer) => (
				<p key={answer.question}>
					<span className="under block">{answer.question}</span>
					{answer.text}
				</p>
			))}
			<TextArea
				label="Agenda, which the client sees"
				rows={2}
				value={agenda}
				wrong={act.refusal?.of("agenda")}
				onChange={(e) => setAgenda(e.target.value)}
			/>
			<TextArea
				label="Notes, yours alone"
				rows={6}
				value={notes}
				wrong={act.refusal?.of("notes")}
				onChange={(e) => setNotes(e.target.value)}
			/>
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
			<div className="flex flex-wrap gap-2">
				{meeting.isStanding && (
					<button
						type="button"
						className="btn btn-go"
						disabled={act.busy}
						onClick={() =>
							act.run(() => post(`${base}/held`, { notes, agenda }))
						}
					>
						It took place
					</button>
				)}
				<button
					type="button"
					className="btn"
					disabled={act.busy}
					onClick={() => act.run(() => put(base, { notes, agenda }))}
				>
					Keep the notes
				</button>
				{meeting.isOver && (
					<button type="button" className="btn" onClick={onSummary}>
						Write them a summary
					</button>
				)}
			</div>
			{meeting.isStanding && !meeting.isOver && (
				<div className="flex flex-wrap items-end gap-2 border-t border-hair pt-3">
					<TextField
						label="Move it to"
						type="datetime-local"
						value={start ?? ""}
						wrong={act.refusal?.of("start")}
						onChange={(e) => setStart(e.target.value)}
					/>
					<button
						type="button"
						className="btn"
						disabled={act.busy || !start}
						onClick={() =>
							act.run(() => post(`${base}/move`, { start: `${start}:00` }))
						}
					>
						Move and tell them
					</button>
					<button
						type="button"
						className="btn"
						disabled={act.busy}
						onClick={() => act.run(() => post(`${base}/cancel`))}
					>
						Cancel and tell them
					</button>
				</div>
			)}
		</div>
	);
}
