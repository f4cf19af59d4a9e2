import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { RecordDto, SheetTaskDto, TaskDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";
import { useClock } from "../useClock";
import { useTakeOut } from "../useTakeOut";
import { TaskFields } from "./TaskFields";

/** A task as it is changed: the parts as lines of text, for they are written in one go. */
export type TaskDraft = Required<Omit<TaskDto, "edition">> & { lines: string };

/** Everything that can be said of a task. */
export function ChangeTask({
	record,
	task,
	onClose,
}: {
	record: RecordDto;
	task: SheetTaskDto;
	onClose: () => void;
}) {
	const [draft, setDraft] = useState(() => draftOf(task.kept));
	const act = useAct();
	const clock = useClock();
	const params = { path: { id: record.id, task: task.id } };
	async function save(event: FormEvent) {
		event.preventDefault();
		const to = { ...saved(draft, task.kept), edition: task.kept.edition };
		if (
			await act.run(() =>
				answer(
					api.PUT("/api/projects/{id}/tasks/{task}", { params, body: to }),
				),
			)
		)
			onClose();
	}
	const takeOut = useTakeOut(act, onClose);
	return (
		<Window title="Change the task" open wide onClose={onClose}>
			<form onSubmit={save} className="grid gap-3">
				<TaskFields
					record={record}
					counted={task.counted}
					draft={draft}
					wrong={(field) => act.refusal?.of(field)}
					set={(part) => setDraft((before) => ({ ...before, ...part }))}
				/>
				<Refused of={act.refusal} />
				<div className="flex flex-wrap gap-2">
					<Button kind="go" type="submit" disabled={act.busy}>
						Keep the change
					</Button>
					{clock.can && !draft.isClients && (
						<Button
							disabled={act.busy}
							onClick={async () => {
								await clock.start(record.id, task.id);
								onClose();
							}}
						>
							Start the clock for it
						</Button>
					)}
					<Button
						className="ml-auto"
						disabled={act.busy}
						onClick={() =>
							takeOut(task.kept.title, (removed) =>
								answer(
									api.POST("/api/projects/{id}/tasks/{task}/removed", {
										params,
										body: { removed },
									}),
								),
							)
						}
					>
						Take it out
					</Button>
				</div>
			</form>
		</Window>
	);
}

const draftOf = (task: TaskDto): TaskDraft => ({
	title: task.title,
	due: task.due,
	phase: task.phase,
	doneBy: task.doneBy ?? null,
	isClients: task.isClients ?? false,
	plan: task.plan ?? {
		workOn: null,
		estimate: "",
		importance: null,
		effort: null,
		list: "",
	},
	words: task.words ?? { description: "", finished: "", steps: [] },
	lines: (task.words?.steps ?? []).map((step) => step.title).join("\n"),
});

/** A part that keeps its words keeps its tick. */
function saved({ lines, ...draft }: TaskDraft, before: TaskDto): TaskDto {
	const was = before.words?.steps ?? [];
	const steps = lines
		.split("\n")
		.map((line) => line.trim())
		.filter(Boolean)
		.map((title) => ({
			title,
			done: was.some((step) => step.title === title && step.done),
		}));
	return { ...draft, words: { ...draft.words!, steps } };
}
