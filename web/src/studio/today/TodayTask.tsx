import { Link } from "react-router";
import type { TodayDto } from "../../api/schema";
import { Tick } from "../../ui/Tick";
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
