import { Link } from "react-router";
import { answer, api } from "../../api/client";
import type { HappenedSort, NextAct, RecordDto } from "../../api/schema";
import { Alert } from "../../ui/Alert";
import { Button } from "../../ui/Button";
import { useUndo } from "../../ui/Undo";
import { useAct } from "../useAct";

/** What the gate's buttons begin, beside what they record themselves. */
export type Begins = {
	/** Writes in the sheet's place. */
	write: (what: string) => void;
	/** Opens an entry. */
	open: (what: string) => void;
	/** Asks what happened, at something or at all. */
	happened: (sort?: HappenedSort) => void;
};

/** The next acts of a project, the one it waits for first. */
export function NextActs({
	record,
	begins,
}: {
	record: RecordDto;
	begins: Begins;
}) {
	if (record.path.next.length === 0) return null;
	return (
		<span className="mt-1.5 flex flex-wrap gap-1.5">
			{record.path.next.map((next, i) => (
				<One
					key={next}
					next={next}
					first={i === 0}
					record={record}
					begins={begins}
				/>
			))}
		</span>
	);
}

function One({
	next,
	first,
	record,
	begins,
}: {
	next: NextAct;
	first: boolean;
	record: RecordDto;
	begins: Begins;
}) {
	const act = useAct();
	const offer = useUndo();
	const kind = first ? "go" : "plain";
	if (next === "WriteProposal")
		return (
			<Button asChild kind={kind}>
				<Link to={`/projects/${record.id}/proposal`}>{words[next]}</Link>
			</Button>
		);
	const run = runs(next, record, begins);
	const said = saidOf(next, record);
	if (!run || !said) return null;
	return (
		<>
			<Button
				kind={kind}
				disabled={act.busy}
				onClick={async () => {
					const write = run();
					if (!write || !(await act.run(() => write))) return;
					const back = backOf(next, record);
					if (back)
						offer({
							words: said,
							undo: () => act.run(back),
						});
				}}
			>
				{said}
			</Button>
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
		</>
	);
}

const words: Record<NextAct, string> = {
	AnswerInquiry: "Answer the inquiry",
	AnswerLetter: "Answer",
	NoAnswerNeeded: "It needs no answer",
	SayFit: "It is a fit",
	WriteProposal: "Write the proposal",
	SendContract: "Send the contract",
	AddSignature: "Add your signature",
	RecordPayment: "Record a payment",
	NoteMeeting: "It was held",
	ReadForm: "Read the form",
	PutUpDraft: "Put up the draft",
	HandOver: "Hand the work over",
	FinishTask: "Done",
	SayWhatHappened: "Say what is next",
	PutAway: "Put it away",
};

const oldestTask = (record: RecordDto) => record.sheet.tasks[0];
const overMeeting = (record: RecordDto) =>
	record.sheet.meetings.all.find((one) => one.isStanding && one.isOver);

function saidOf(next: NextAct, record: RecordDto): string | undefined {
	switch (next) {
		case "FinishTask": {
			const task = oldestTask(record);
			return task && `Done: ${task.title}`;
		}
		case "NoteMeeting":
			return overMeeting(record) && words[next];
		case "ReadForm":
			return undefined;
		default:
			return words[next];
	}
}

/** What takes an act back that has not left the house. */
function backOf(next: NextAct, record: RecordDto) {
	const path = { id: record.id };
	const task = oldestTask(record);
	switch (next) {
		case "SayFit":
			return () =>
				answer(
					api.POST("/api/projects/{id}/happened", {
						params: { path },
						body: { ...unsaid, sort: "FitTakenBack" },
					}),
				);
		case "FinishTask":
			return (
				task &&
				(() =>
					answer(
						api.POST("/api/projects/{id}/tasks/{task}/done", {
							params: { path: { ...path, task: task.id } },
							body: { done: false },
						}),
					))
			);
		case "PutAway":
			return () =>
				answer(
					api.POST("/api/projects/{id}/away", {
						params: { path },
						body: { away: false },
					}),
				);
		default:
			return undefined;
	}
}

/** What a press does; a write is returned to be awaited. */
function runs(
	next: NextAct,
	record: RecordDto,
	{ write, happened }: Begins,
): (() => Promise<unknown> | undefined) | undefined {
	const path = { id: record.id };
	const say = (sort: HappenedSort, more = {}) =>
		answer(
			api.POST("/api/projects/{id}/happened", {
				params: { path },
				body: { ...unsaid, sort, ...more },
			}),
		);
	const begin = (act: () => void) => () => {
		act();
		return undefined;
	};
	switch (next) {
		case "AnswerInquiry":
		case "AnswerLetter":
			return begin(() => write("letter"));
		case "SendContract":
			return begin(() => write("contract"));
		case "PutUpDraft":
			return begin(() => write("review"));
		case "HandOver":
			return begin(() => write("handover"));
		case "RecordPayment":
			return begin(() => happened("Paid"));
		case "SayWhatHappened":
			return begin(() => happened());
		case "SayFit":
			return () => say("Fit");
		case "NoAnswerNeeded":
			return () => say("NoAnswerNeeded");
		case "AddSignature":
			return () => say("Countersign", { words: record.path.happen.owner });
		case "NoteMeeting": {
			const meeting = overMeeting(record);
			return (
				meeting &&
				(() =>
					answer(
						api.POST("/api/projects/{id}/meetings/{meeting}/held", {
							params: { path: { ...path, meeting: meeting.id } },
							body: { notes: meeting.notes, agenda: meeting.agenda },
						}),
					))
			);
		}
		case "FinishTask": {
			const task = oldestTask(record);
			return (
				task &&
				(() =>
					answer(
						api.POST("/api/projects/{id}/tasks/{task}/done", {
							params: { path: { ...path, task: task.id } },
							body: { done: true },
						}),
					))
			);
		}
		case "PutAway":
			return () =>
				answer(
					api.POST("/api/projects/{id}/away", {
						params: { path },
						body: { away: true },
					}),
				);
		default:
			return undefined;
	}
}

const unsaid = {
	on: null,
	words: null,
	until: null,
	amount: null,
	tax: null,
	onBooking: null,
	means: null,
	invoice: null,
	file: null,
	credit: false,
	colleague: null,
	subject: null,
	body: null,
};
