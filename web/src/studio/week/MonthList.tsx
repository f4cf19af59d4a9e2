import { Link } from "react-router";
import type { MonthDto } from "../../api/schema";
import { LoadBar } from "./LoadBar";
import { Entries } from "./MonthGrid";

/** A month on a phone: the days that hold something, one under the other. */
export function MonthList({ month }: { month: MonthDto }) {
	const days = month.days.filter(
		(day) =>
			day.isOfMonth &&
			(day.head.isToday || day.meetings.length + day.entries.length > 0),
	);
	return (
		<div className="grid gap-4 px-4">
			{days.map((day) => (
				<section key={day.head.day} aria-label={day.head.full}>
					<div className="rule pb-1.5">
						<Link
							to={`/week?day=${day.head.day}`}
							className="flex items-baseline gap-2"
						>
							<h2>{day.head.full}</h2>
							<span
								className={`ml-auto text-[13px] ${day.head.load.over ? "font-[650]" : "text-soft"}`}
							>
								{day.head.load.words}
							</span>
						</Link>
						<LoadBar load={day.head.load} />
					</div>
					<Entries day={day} />
				</section>
			))}
			{days.length === 0 && (
				<p className="py-3 text-soft">Nothing is planned in this month.</p>
			)}
		</div>
	);
}
