import { Link } from "react-router";
import { answer, api } from "../../api/client";
import type { RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { useAct } from "../useAct";
import { EditHead } from "./EditHead";
import type { DateToMove } from "./MoveDate";

/** What it is, for whom, when; and the acts that are always there. */
export function Head({
	record,
	onMove,
	onHappened,
}: {
	record: RecordDto;
	onMove: (date: DateToMove) => void;
	onHappened: () => void;
}) {
	const closed = record.path.ended || record.head.erased;
	return (
		<div className="flex flex-wrap items-end gap-x-3.5 gap-y-2 px-5 pt-3.5 pb-3 max-md:px-4">
			{record.head.client.hasPicture && (
				<img
					src={`/api/people/${record.head.client.id}/picture`}
					alt={record.head.client.name}
					className="size-10 border border-hair object-cover"
				/>
			)}
			<h1>{record.head.title}</h1>
			{!record.head.erased && <EditHead record={record} />}
			<p className="text-soft">
				<b className="font-semibold text-ink">{record.head.client.name}</b>
				{record.head.client.organisation &&
					`, ${record.head.client.organisation}`}
				.{" "}
				{[
					record.head.kind,
					...record.head.furtherKinds.map((kind) => kind.name),
				].join(" and ")}
				.{" "}
				{record.head.date.words ? (
					<>
						{record.head.date.name}{" "}
						<b className="font-semibold text-ink">{record.head.date.words}</b>,{" "}
						{record.head.date.distance}.
					</>
				) : (
					record.head.date.name && `${record.head.date.name} not known.`
				)}{" "}
				{!closed && record.head.date.name && (
					<Button
						kind="word"
						size="small"
						className="mr-2"
						onClick={() => onMove(record.head.date)}
					>
						{record.head.date.words ? "move" : "set"}
						<span className="sr-only">
							{" "}
							the {record.head.date.name.toLowerCase()}
						</span>
					</Button>
				)}
				{!closed && (
					<Button
						kind="word"
						size="small"
						onClick={() => onMove({ day: null })}
					>
						another date
					</Button>
				)}
			</p>
			<OtherDates record={record} onMove={onMove} />
			{record.head.others.length > 0 && (
				<p className="w-full text-small text-soft">
					Also for {record.head.client.name}:{" "}
					{record.head.others.map((one, i) => (
						<span key={one.id}>
							{i > 0 && ", "}
							<Link className="underline" to={`/projects/${one.id}`}>
								{one.title}
							</Link>{" "}
							({one.stands.toLowerCase()})
						</span>
					))}
				</p>
			)}
			{record.head.erased && (
				<p className="w-full font-[650]">
					The client was erased on {record.head.erased}. What was said here is
					gone; what happened stays.
				</p>
			)}
			{record.path.ended && (
				<p className="w-full font-[650]">
					{record.path.ended}
					{record.path.putAway && ", put away"}
				</p>
			)}
			<div className="ml-auto flex gap-2 max-lg:hidden">
				<Places record={record} />
				<Button kind="go" onClick={onHappened}>
					What happened?
				</Button>
			</div>
		</div>
	);
}

/** The other dates of the project, each to be moved with what hangs on it. */
function OtherDates({
	record,
	onMove,
}: {
	record: RecordDto;
	onMove: (date: DateToMove) => void;
}) {
	const { dates } = record.head;
	if (record.path.ended || record.head.erased || dates.length === 0)
		return null;
	return (
		<p className="flex w-full flex-wrap gap-x-4 gap-y-1.5 text-small text-soft">
			{dates.map((date) => (
				<span key={date.name}>
					<span className="inline-block first-letter:uppercase">
						{date.name}
					</span>{" "}
					{date.words ? (
						<>
							<b className="font-semibold text-ink">{date.words}</b>,{" "}
							{date.distance}
						</>
					) : (
						"not known"
					)}{" "}
					<Button kind="word" onClick={() => onMove(date)}>
						{date.words ? "move" : "set"}
						<span className="sr-only"> the {date.name.toLowerCase()}</span>
					</Button>
				</span>
			))}
		</p>
	);
}

/** The proposal while it can be written, and the place of what is over. */
export function Places({ record }: { record: RecordDto }) {
	return (
		<>
			<Away record={record} />
			{(record.path.stage === "Lead" || record.path.stage === "Proposal") && (
				<Button asChild>
					<Link to={`/projects/${record.id}/proposal`}>Proposal</Link>
				</Button>
			)}
		</>
	);
}

/** Out of the daily lists once it is over, and back again. */
function Away({ record }: { record: RecordDto }) {
	const act = useAct("below");
	if (!record.path.ended && record.path.stage !== "Finished") return null;
	return (
		<Button
			disabled={act.busy}
			onClick={() =>
				act.run(() =>
					answer(
						api.POST("/api/projects/{id}/away", {
							params: { path: { id: record.id } },
							body: {
								away: !record.path.putAway,
							},
						}),
					),
				)
			}
		>
			{record.path.putAway ? "Take it out again" : "Put it away"}
		</Button>
	);
}
