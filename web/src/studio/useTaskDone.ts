import { answer, api } from "../api/client";
import { useUndo } from "../ui/Undo";
import { useAct } from "./useAct";

/** Marks a task as done, and offers to take that back. */
export function useTaskDone(project: number) {
	const act = useAct();
	const offer = useUndo();
	const mark = (task: number, done: boolean) =>
		act.run(() =>
			answer(
				api.POST("/api/projects/{id}/tasks/{task}/done", {
					params: { path: { id: project, task } },
					body: { done },
				}),
			),
		);
	return async (task: number, title: string) => {
		if (await mark(task, true))
			offer({ words: `Done: ${title}`, undo: () => mark(task, false) });
	};
}
