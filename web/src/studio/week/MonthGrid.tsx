import { Link } from "react-router";
import type { MonthDto } from "../../api/schema";
import { LoadBar } from "./LoadBar";

type Day = MonthDto["days"][number];

/** A month by its weeks; a day leads to its week. */
export function MonthGrid({ month }: { month: MonthDto }) {
	const weeks: Day[][] = [];
	for (let at = 0; at < month.days.length; at += 7)
		weeks.push(month.days.slice(at, at + 7));
	return (
		<table className="timetable w-full table-fixed">
			<caption className="sr-only">
				{month.title}: {month.load}
			</caption>
			<thead>
				<tr>
					{weeks[0]?.map((day) => (
						<th key={day.head.day} scope="col" className="month-head">
							{day.head.full.split(/[ ,]/)[0]}
						</th>
					))}
				</tr>
			</thead>
			<tbody>
				{weeks.map((week) => (
					<tr key={week[0]?.head.day}>
						{week.map((day) => (
							<td
								key={day.head.day}
								className={`h-24 ${day.head.isToday ? "bg-sheet" : day.head.isClosed && day.entries.length + day.meetings.length === 0 ? "closed-day" : ""} ${day.isOfMonth ? "" : "text-soft"}`}
							>
								<DayHead day={day} />
								<Entries day={day} />
							</td>
						))}
					</tr>
				))}
			</tbody>
		</table>
	);
}

function DayHead({ day }: { day: Day }) {
	const { head } = day;
	return (
		<>
			<Link
				to={`/week?day=${head.day}`}
				className="flex min-h-6 items-baseline gap-1.5"
			>
				<b aria-hidden className="num text-[14px] font-[650]">
					{Number(head.day.slice(8))}
				</b>
				<span className="sr-only">
					{head.full}
					{head.isToday && ", today"}
				</span>
				<span
					className={`text-[12px] ${head.load.over ? "font-[650]" : "text-soft"}`}
				>
					{head.load.words}
				</span>
			</Link>
			<LoadBar load={head.load} />
		</>
	);
}

export function Entries({ day }: { day: Day }) {
	return (
		<ul className="pt-1 text-[12.8px] leading-tight">
			{day.meetings.map((one, i) => (
				<li key={`${one.time}${i}`}>
					<b className="num font-semibold">{one.time}</b> {one.words}
				</li>
			))}
			{day.entries.map((one, i) => (
				<li
					key={`${one.words}${i}`}
					className={
						one.sort === "Date"
							? "font-[650]"
							: one.sort
								? "text-(--date)"
								: one.done
									? "text-soft line-through"
									: ""
					}
				>
					<Link
						to={`/projects/${one.project}`}
						className="block min-h-6 py-1 wrap-anywhere"
					>
						{one.words}
					</Link>
				</li>
			))}
			{day.more > 0 && (
				<li>
					<Link
						to={`/week?day=${day.head.day}`}
						className="under block min-h-6 py-1"
					>
						and {day.more} more
					</Link>
				</li>
			)}
		</ul>
	);
}
