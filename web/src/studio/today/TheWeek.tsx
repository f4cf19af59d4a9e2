import { Link } from "react-router";
import type { TodayDto } from "../../api/schema";
import { Head } from "./Head";

/** How full each day of the week is: as high as it is planned, hatched where it holds too much. */
export function TheWeek({ load }: { load: TodayDto["day"]["load"] }) {
	return (
		<section aria-labelledby="the-week">
			<Head id="the-week" title="The week" low />
			<Link to="/week" className="block pt-2">
				<ul className="grid grid-cols-7 gap-1">
					{load.days.map((day) => (
						<li
							key={day.day}
							className={`relative h-[60px] overflow-hidden bg-sheet ${day.isToday ? "border-[1.5px] border-ink" : "border border-hair"}`}
						>
							<span
								aria-hidden
								className={`absolute top-0.5 left-1.5 text-[12px] ${day.isToday ? "font-[650]" : "text-soft"}`}
							>
								{day.name[0]}
							</span>
							<span
								aria-hidden
								className={`absolute inset-x-1 bottom-1 ${day.load.over ? "hatched border border-ink" : "bg-(--hatch)"}`}
								style={{ height: `${day.load.share * 0.34}px` }}
							/>
							<span className="sr-only">
								{[day.full, day.load.words || "nothing", day.load.over]
									.filter(Boolean)
									.join(", ")}
							</span>
						</li>
					))}
				</ul>
				<span className="under block pt-1">{load.words}</span>
			</Link>
		</section>
	);
}
