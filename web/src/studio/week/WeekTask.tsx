import { Link } from "react-router";
import type { PlannedTaskDto, WeekDto } from "../../api/schema";
import { Tick } from "../../ui/Tick";
import { useTaskDone } from "../useTaskDone";
import { useDragged } from "./Dragged";
import { PutOnDay } from "./PutOnDay";

/** Beside the days, after the seventh. */
export const besideColumn = 7;

/** A task as it stands in a day or beside the days: ticked, walked to, moved. */
export function WeekTask({
	task,
	column,
	days,
}: {
	task: PlannedTaskDto;
	/** In which column it stands, for the arrow keys. */
	column: number;
	/** The days it can be put on by a press, where nothing is dragged. */
	days?: WeekDto["days"];
}) {
	const { done, mark } = useTaskDone(task.project);
	const drag = useDragged(task);
	const { marks } = task;
	const isBeside = column === besideColumn;
	const said = [
		marks.late ? task.due : "",
		marks.left ? "was to be done before" : "",
	]
		.filter(Boolean)
		.join(", ");
	return (
		<div
			{...drag}
			className={`flex items-start gap-1.5 ${isBeside ? "border-b border-hair py-1.5 text-[13.6px] leading-snug" : "py-[1.5px]"}`}
		>
			<Tick
				hidden
				label={`${task.title} is done`}
				className="week-tick"
				checked={marks.done}
				onChange={(now) =>
					now ? done(task.id, task.title) : mark(task.id, false)
				}
			/>
			<span className="min-w-0 flex-1">
				<Link
					to={`/projects/${task.project}?task=${task.id}`}
					data-walk
					data-task={task.id}
					data-project={task.project}
					data-day={task.day ?? ""}
					data-column={column}
					data-estimate={task.estimate}
					data-title={task.title}
					draggable={false}
					className={`wrap-anywhere ${marks.done ? "text-soft line-through" : marks.late || marks.left ? "font-[650]" : ""}`}
				>
					{task.title}
					{said && <span className="sr-only">, {said}</span>}
				</Link>
				{task.estimate && (
					<span className="num ml-1.5 text-[12.3px] whitespace-nowrap text-soft">
						{task.estimate}
					</span>
				)}
				{(marks.where || days) && (
					<span className="under block">
						{[marks.where, days && task.due].filter(Boolean).join(", ")}
					</span>
				)}
			</span>
			{days && !marks.done && <PutOnDay task={task} days={days} />}
			{isBeside && !days && (
				<span
					className={`num text-[12.6px] whitespace-nowrap ${marks.late ? "font-[650]" : "text-soft"}`}
				>
					{task.due}
				</span>
			)}
		</div>
	);
}
