import { answer, api } from "../../api/client";
import type { HappenedSort, NextAct, RecordDto } from "../../api/schema";

/** What the gate's buttons begin, beside what they record themselves. */
export type Begins = {
	/** Writes in the sheet's place. */
	write: (what: string) => void;
	/** Opens an entry. */
	open: (what: string) => void;
	/** Asks what happened, at something or at all. */
	happened: (sort?: HappenedSort) => void;
};

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

const oldestTask = (record: RecordDto) =>
	record.sheet.tasks.open.find((task) => !task.kept.isClients);
const overMeeting = (record: RecordDto) =>
	record.sheet.meetings.all.find((one) => one.isStanding && one.isOver);

/** What its button says; undefined where there is nothing to press. */
export function saidOf(next: NextAct, record: RecordDto): string | undefined {
	switch (next) {
		case "FinishTask": {
			const task = oldestTask(record);
			return task && `Done: ${task.kept.title}`;
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
export function backOf(next: NextAct, record: RecordDto) {
	const task = oldestTask(record);
	switch (next) {
		case "SayFit":
			return () => happen(record, "FitTakenBack");
		case "FinishTask":
			return task && (() => finish(record, task.id, false));
		case "PutAway":
			return () => putAway(record, false);
		case "NoteMeeting": {
			const meeting = overMeeting(record);
			return meeting && (() => meetingAgain(record, meeting.id));
		}
		default:
			return undefined;
	}
}

/** What a press does; a write is returned to be awaited. */
export function runs(
	next: NextAct,
	record: RecordDto,
	{ write, happened }: Begins,
): (() => Promise<unknown> | undefined) | undefined {
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
			return () => happen(record, "Fit");
		case "NoAnswerNeeded":
			return () => happen(record, "NoAnswerNeeded");
		case "AddSignature":
			return () => happen(record, "Countersign", record.path.happen.owner);
		case "NoteMeeting": {
			const meeting = overMeeting(record);
			return (
				meeting &&
				(() =>
					answer(
						api.POST("/api/projects/{id}/meetings/{meeting}/held", {
							params: { path: { id: record.id, meeting: meeting.id } },
							body: { notes: null, agenda: null },
						}),
					))
			);
		}
		case "FinishTask": {
			const task = oldestTask(record);
			return task && (() => finish(record, task.id, true));
		}
		case "PutAway":
			return () => putAway(record, true);
		default:
			return undefined;
	}
}

const happen = (
	record: RecordDto,
	sort: HappenedSort,
	words: string | null = null,
) =>
	answer(
		api.POST("/api/projects/{id}/happened", {
			params: { path: { id: record.id } },
			body: { sort, words, credit: false },
		}),
	);

const meetingAgain = (record: RecordDto, meeting: number) =>
	answer(
		api.POST("/api/projects/{id}/meetings/{meeting}/again", {
			params: { path: { id: record.id, meeting } },
		}),
	);

const finish = (record: RecordDto, task: number, done: boolean) =>
	answer(
		api.POST("/api/projects/{id}/tasks/{task}/done", {
			params: { path: { id: record.id, task } },
			body: { done },
		}),
	);

const putAway = (record: RecordDto, away: boolean) =>
	answer(
		api.POST("/api/projects/{id}/away", {
			params: { path: { id: record.id } },
			body: { away },
		}),
	);
