import { answer, api } from "../../api/client";
import { dayText } from "../../ui/days";
import { useUndo } from "../../ui/Undo";
import { useAct } from "../useAct";

export type Moved = { id: number; project: number; title: string };

/** Puts a task on another day, or on none, with the offer to take that back. */
export function useTaskDay() {
	const act = useAct("below");
	const offer = useUndo();
	const say = (task: Moved, day: string | null) =>
		answer(
			api.POST("/api/projects/{id}/tasks/{task}/day", {
				params: { path: { id: task.project, task: task.id } },
				body: { day },
			}),
		);
	return (task: Moved, was: string | null, day: string | null) =>
		act.run(async () => {
			await say(task, day);
			offer({
				words: day
					? `${task.title}: worked on ${dayText(day)}`
					: `${task.title}: on no day`,
				undo: () => act.run(() => say(task, was)),
			});
		});
}
