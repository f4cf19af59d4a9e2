import { Link } from "react-router";
import type { PlannedTaskDto, WeekDto } from "../../api/schema";
import { Tick } from "../../ui/Tick";
import { useTaskDone } from "../useTaskDone";
import { LoadBar } from "./LoadBar";
import { PutOnDay } from "./PutOnDay";
import { Meeting } from "./Timetable";

/** The same on a phone: one day under the other. */
export function WeekList({
	week,
	onOpen,
}: {
	week: WeekDto;
	onOpen: (appointment: number) => void;
}) {
	return (
		<div className="grid gap-4 px-4">
			{week.days.map((day) => {
				const meetings = week.meetings.filter((one) => one.day === day.day);
				const rows = week.rows
					.map((row) => ({
						...row,
						tasks: row.tasks.filter((task) => task.day === day.day),
						notes: row.notes.filter((note) => note.day === day.day),
					}))
					.filter((row) => row.tasks.length + row.notes.length > 0);
				const empty = meetings.length + rows.length === 0;
				if (empty && day.isClosed) return null;
				return (
					<section
						key={day.day}
						aria-labelledby={`day-${day.day}`}
						data-monday={week.days[0]?.day}
					>
						<div className="rule pb-1.5">
							<div className="flex items-baseline gap-2">
								<h2 id={`day-${day.day}`}>{day.full}</h2>
								{day.isToday && <span className="under">today</span>}
								<span
									className={`ml-auto text-[13px] whitespace-nowrap ${day.load.over ? "font-[650]" : "text-soft"}`}
								>
									{day.load.words}
								</span>
							</div>
							<LoadBar load={day.load} />
							{day.load.over && (
								<p className="pt-1 text-[13px] font-[650]">{day.load.over}</p>
							)}
						</div>
						{meetings.map((one, i) => (
							<div
								key={`${one.time}${i}`}
								className="border-b border-hair py-2"
							>
								<Meeting meeting={one} onOpen={onOpen} />
								{one.of && <span className="under block">{one.of}</span>}
							</div>
						))}
						{rows.map((row) => (
							<div key={row.project}>
								{row.tasks.map((task) => (
									<Task key={task.id} task={task} of={row.title} week={week} />
								))}
								{row.notes.map((note, i) => (
									<p
										key={`${note.words}${i}`}
										className="border-b border-hair py-2 text-(--date)"
									>
										<span className="dotted">{note.words}</span>
										<Link
											to={`/projects/${row.project}`}
											className="under block"
										>
											{row.title}
										</Link>
									</p>
								))}
							</div>
						))}
						{empty && <p className="py-2 text-soft">Nothing planned.</p>}
					</section>
				);
			})}
		</div>
	);
}

function Task({
	task,
	of,
	week,
}: {
	task: PlannedTaskDto;
	of: string;
	week: WeekDto;
}) {
	const { done, mark } = useTaskDone(task.project);
	return (
		<div className="flex items-start gap-3 border-b border-hair py-2">
			<Tick
				hidden
				label={`${task.title} is done`}
				checked={task.marks.done}
				onChange={(now) =>
					now ? done(task.id, task.title) : mark(task.id, false)
				}
			/>
			<span className="min-w-0 flex-1">
				<Link
					to={`/projects/${task.project}?task=${task.id}`}
					className={`block wrap-anywhere ${task.marks.done ? "text-soft line-through" : task.marks.late ? "font-[650]" : ""}`}
				>
					{task.title}
				</Link>
				<span className="under block">
					{[of, task.estimate, task.due].filter(Boolean).join(", ")}
				</span>
			</span>
			{!task.marks.done && <PutOnDay task={task} days={week.days} />}
		</div>
	);
}
