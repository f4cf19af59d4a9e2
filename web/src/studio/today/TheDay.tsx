import { Link } from "react-router";
import type { TodayDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Empty } from "../../ui/Empty";
import { DayMeeting } from "./DayMeeting";
import { Head } from "./Head";
import { Pinned } from "./Pinned";
import { TheWeek } from "./TheWeek";
import { Step, Task } from "./TodayTask";

/** Meetings and tasks of the day, and what came in since the last look. */
export function TheDay({ today }: { today: TodayDto }) {
	return (
		<section aria-labelledby="the-day">
			<Head
				id="the-day"
				title="The day"
				under={due(today.day.tasks.length, today.day.steps.length)}
			/>
			{today.day.meetings.map((one) => (
				<DayMeeting key={`${one.project} ${one.meeting}`} meeting={one} />
			))}
			{today.day.tasks.map((task) => (
				<Task key={task.id} task={task} />
			))}
			{today.day.steps.map((step) => (
				<Step key={step.key + step.column} step={step} />
			))}
			{today.day.tasks.length + today.day.steps.length === 0 && (
				<Empty>No task is due today, and none is late.</Empty>
			)}
			<TheWeek load={today.day.load} />
			<Pinned notes={today.day.pinned} />
			<Head
				id="came-in"
				title="Came in"
				under={`since ${today.day.cameIn.since}`}
				low
			/>
			{today.day.cameIn.newest.map((one) => (
				<div
					key={`${one.words}${one.when}`}
					className="flex gap-3 border-b border-hair py-2"
				>
					<Link
						to={`/projects/${one.project}`}
						className={one.new ? "font-[650]" : ""}
					>
						{one.words}
						{one.new && <span className="sr-only"> (new)</span>}
					</Link>
					<time className="ml-auto whitespace-nowrap text-soft">
						{one.when}
					</time>
				</div>
			))}
			{today.day.cameIn.newest.length === 0 && (
				<Empty>What clients do while you are away stands here.</Empty>
			)}
			<p className="under pt-2">
				{today.day.cameIn.more > 0 && `and ${today.day.cameIn.more} more; `}
				<Button asChild kind="word">
					<Link to="/came-in">earlier days</Link>
				</Button>
			</p>
			{today.day.tray > 0 && (
				<p className="pt-3">
					<Button asChild kind="word" className="font-[650]">
						<Link to="/tray">
							Tray: {today.day.tray} {today.day.tray === 1 ? "thing" : "things"}{" "}
							without a project
						</Link>
					</Button>
				</p>
			)}
		</section>
	);
}

const many = (count: number, of: string) =>
	count > 0 && `${count} ${of}${count === 1 ? "" : "s"}`;

const due = (tasks: number, steps: number) =>
	tasks + steps === 0
		? "nothing due"
		: `${[many(tasks, "task"), many(steps, "step")].filter(Boolean).join(" and ")} due`;
