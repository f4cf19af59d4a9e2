import { answer, api } from "../api/client";
import { useUndo } from "../ui/Undo";
import { useAct } from "./useAct";

/** Marks a task as done, with the offer to take that back; or as not done after all. */
export function useTaskDone(project: number) {
	const act = useAct("below");
	const offer = useUndo();
	const say = (task: number, done: boolean) =>
		answer(
			api.POST("/api/projects/{id}/tasks/{task}/done", {
				params: { path: { id: project, task } },
				body: { done },
			}),
		);
	const mark = (task: number, done: boolean) => act.run(() => say(task, done));
	const done = (task: number, title: string) =>
		act.run(async () => {
			await say(task, true);
			// at once: what it changed on the page comes after
			offer({ words: `Done: ${title}`, undo: () => mark(task, false) });
		});
	return { done, mark };
}
