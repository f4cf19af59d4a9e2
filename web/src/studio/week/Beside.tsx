import { useState } from "react";
import { Link } from "react-router";
import type { BesideShow, WeekDto } from "../../api/schema";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";
import { useNarrow } from "../useNarrow";
import { NoDay } from "./Dragged";
import type { Where } from "./useWeek";
import { besideColumn, WeekTask } from "./WeekTask";

const titles: Record<BesideShow, string> = {
	Due: "Not on a day",
	Project: "All open tasks",
	Done: "Done in these days",
};

const filterFrom = 12;

/** Every open task that has no day, by when it is due; all of them by project; or what was done. Below, the tray. */
export function Beside({
	week,
	onGo,
}: {
	week: WeekDto;
	onGo: (to: Where) => void;
}) {
	const { beside } = week;
	const [words, setWords] = useState("");
	const narrow = useNarrow();
	const isMeant = (text: string) =>
		text.toLowerCase().includes(words.trim().toLowerCase());
	const groups = beside.groups
		.map((group) => ({
			...group,
			tasks: group.tasks.filter(
				(task) =>
					isMeant(task.title) ||
					isMeant(task.marks.where) ||
					isMeant(group.name),
			),
		}))
		.filter((group) => group.tasks.length > 0);
	return (
		<aside
			aria-labelledby="beside"
			className="border-l-[1.5px] border-ink pl-3.5 max-lg:border-l-0 max-lg:pl-0 print:hidden"
		>
			<div className="rule flex items-baseline gap-2 pt-1.5 pb-1.5">
				<h2 id="beside">{titles[beside.show]}</h2>
				<span className="text-[13.5px] text-soft">{beside.count}</span>
			</div>
			<div className="grid gap-1.5 pt-2">
				<Select
					label="Show"
					hidden
					value={beside.show}
					onChange={(e) => onGo({ beside: e.target.value as BesideShow })}
				>
					<option value="Due">without a day, by date</option>
					<option value="Project">all open, by project</option>
					<option value="Done">done in these days</option>
				</Select>
				{beside.count > filterFrom && (
					<TextField
						label="Filter these tasks"
						hidden
						placeholder="filter"
						value={words}
						onChange={(e) => setWords(e.target.value)}
					/>
				)}
			</div>
			<NoDay>
				{groups.map((group) => (
					<section key={group.name} aria-label={group.name}>
						<h3 className="pt-2.5 text-[12.6px] font-semibold text-soft">
							{group.name}
						</h3>
						{group.tasks.map((task) => (
							<WeekTask
								key={task.id}
								task={task}
								column={besideColumn}
								days={narrow ? week.days : undefined}
							/>
						))}
					</section>
				))}
				{groups.length === 0 && (
					<p className="py-3 text-soft">
						{words.trim()
							? `None of these is called “${words.trim()}”.`
							: beside.show === "Done"
								? "What is ticked off in these days stands here."
								: "Every open task has its day."}
					</p>
				)}
			</NoDay>
			{beside.more > 0 && <p className="under pt-2">and {beside.more} more</p>}
			{beside.tray.length > 0 && (
				<section aria-label="Tray">
					<h3 className="pt-2.5 text-[12.6px] font-semibold text-soft">
						<Link to="/tray">Tray, {beside.inTray}</Link>
					</h3>
					{beside.tray.map((slip) => (
						<Link
							key={slip.id}
							to="/tray"
							className="block border-b border-hair py-1.5 wrap-anywhere"
						>
							“{slip.text}”
						</Link>
					))}
				</section>
			)}
		</aside>
	);
}
