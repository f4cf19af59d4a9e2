import type { PlannedTaskDto, WeekDto } from "../../api/schema";
import { Select } from "../../ui/Select";
import { useTaskDay } from "./useTaskDay";

/** On which day of the week a task is worked on, chosen from a list. */
export function PutOnDay({
	task,
	days,
}: {
	task: PlannedTaskDto;
	days: WeekDto["days"];
}) {
	const put = useTaskDay();
	return (
		<Select
			label={`On which day: ${task.title}`}
			hidden
			bare
			value={task.day ?? ""}
			onChange={(e) => void put(task, task.day ?? null, e.target.value || null)}
		>
			{days.map((day) => (
				<option key={day.day} value={day.day}>
					{day.name}
				</option>
			))}
			<option value="">no day</option>
		</Select>
	);
}
