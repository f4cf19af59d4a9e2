import { Link } from "react-router";
import type { SeasonDto } from "../../api/schema";
import { Patterns, Track } from "./Track";
import { Weeks } from "./Weeks";

/** The season on a phone: each project with its track under it. */
export function SeasonList({ season }: { season: SeasonDto }) {
	const { scale } = season;
	return (
		<>
			<Patterns />
			<svg aria-hidden width="100%" height="20" className="block">
				{scale.months.map((month) => (
					<text
						key={month.at}
						x={`${(100 * month.at) / scale.days}%`}
						y={14}
						className="fill-soft font-head text-[12.6px] font-semibold"
					>
						{month.name}
					</text>
				))}
			</svg>
			<ul className="border-t-[1.5px] border-ink">
				{season.rows.map((row) => (
					<li key={row.id} className="border-b border-hair pt-2">
						<Link to={`/projects/${row.id}`} data-walk className="block">
							<span className="flex gap-3">
								<b className="min-w-0 font-[650]">{row.title}</b>
								<span className="num ml-auto whitespace-nowrap">
									{row.money.toCome}
								</span>
							</span>
							<span className="under flex gap-3">
								<span className="min-w-0">{row.under}</span>
								<span
									className={`ml-auto whitespace-nowrap ${row.money.isLate ? "font-[650] text-ink" : ""}`}
								>
									{row.money.under}
								</span>
							</span>
							<Track row={row} scale={scale} />
						</Link>
					</li>
				))}
			</ul>
			<section aria-label="Your weeks" className="pt-4">
				<h2>Your weeks</h2>
				<p className="under">
					hours planned of hours open; dashed is free for a start of{" "}
					{season.starts.hours} h
				</p>
				<Weeks season={season} />
			</section>
		</>
	);
}
