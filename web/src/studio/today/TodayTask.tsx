import { Link } from "react-router";
import { answer, api } from "../../api/client";
import type { TodayDto } from "../../api/schema";
import { Tick } from "../../ui/Tick";
import { useUndo } from "../../ui/Undo";
import { useAct } from "../useAct";
import { useTaskDone } from "../useTaskDone";

export function Task({ task }: { task: TodayDto["day"]["tasks"][number] }) {
	const { done } = useTaskDone(task.project);
	return (
		<div className="flex items-start gap-3 border-b border-hair py-2">
			<Tick
				hidden
				label={`${task.title} is done`}
				checked={false}
				onChange={() => done(task.id, task.title)}
			/>
			<span>
				{task.title}
				<Link className="under block" to={`/projects/${task.project}`}>
					{task.projectTitle}
				</Link>
			</span>
			<span
				className={`ml-auto text-[13.4px] whitespace-nowrap ${task.late ? "font-[650]" : "text-soft"}`}
			>
				{task.due}
			</span>
		</div>
	);
}

/** A step of a plan that is due. */
export function Step({ step }: { step: TodayDto["day"]["steps"][number] }) {
	const act = useAct("below");
	const offer = useUndo();
	const set = (done: boolean) =>
		act.run(() =>
			answer(
				api.POST("/api/lists/{list}/entries/{key}/steps/{column}/done", {
					params: {
						path: { list: step.list, key: step.key, column: step.column },
					},
					body: { done },
				}),
			),
		);
	return (
		<div className="flex items-start gap-3 border-b border-hair py-2">
			<Tick
				hidden
				label={`${step.title} is done`}
				checked={false}
				disabled={act.busy}
				onChange={async () => {
					if (await set(true))
						offer({ words: `Done: ${step.title}`, undo: () => set(false) });
				}}
			/>
			<span>
				{step.title}
				<Link className="under block" to={`/lists/${step.list}`}>
					{step.of}
				</Link>
			</span>
			<span
				className={`ml-auto text-[13.4px] whitespace-nowrap ${step.late ? "font-[650]" : "text-soft"}`}
			>
				{step.due}
			</span>
		</div>
	);
}
