import { Link } from "react-router";
import type { SeasonDto } from "../../api/schema";
import { Patterns, Today, Track } from "./Track";
import { Weeks } from "./Weeks";

/** The season on a wide screen. */
export function SeasonTable({ season }: { season: SeasonDto }) {
	const { scale } = season;
	return (
		<>
			<Patterns />
			<table className="season w-full table-fixed">
				<caption className="sr-only">{season.title}</caption>
				<colgroup>
					<col className="w-[212px]" />
					<col />
					<col className="w-[128px]" />
				</colgroup>
				<thead>
					<tr>
						<th scope="col">
							<span className="sr-only">Project</span>
						</th>
						<th scope="col">
							<span className="sr-only">
								{season.title}: phases, dates and payments
							</span>
							<svg
								aria-hidden
								width="100%"
								height="20"
								className="block overflow-visible"
							>
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
								<Today scale={scale} />
							</svg>
						</th>
						<th scope="col" className="text-right text-[13px] text-soft">
							to come, with tax
						</th>
					</tr>
				</thead>
				<tbody>
					{season.rows.map((row) => (
						<tr key={row.id}>
							<th scope="row">
								<Link to={`/projects/${row.id}`} data-walk className="block">
									<b className="block truncate font-[650]">{row.title}</b>
									<span className="under block truncate">{row.under}</span>
								</Link>
							</th>
							<td>
								<Link
									to={`/projects/${row.id}`}
									tabIndex={-1}
									className="block"
								>
									<Track row={row} scale={scale} />
								</Link>
							</td>
							<td className="num text-right">
								{row.money.toCome}
								<span
									className={`block text-[13px] ${row.money.isLate ? "font-[650]" : "text-soft"}`}
								>
									{row.money.under}
								</span>
							</td>
						</tr>
					))}
					<tr className="align-top">
						<th scope="row" className="pt-2">
							<b className="font-[650]">Your weeks</b>
							<span className="under block">
								hours planned of hours open; dashed is free for a start of{" "}
								{season.starts.hours} h
							</span>
						</th>
						<td>
							<Weeks season={season} />
						</td>
						<td />
					</tr>
				</tbody>
			</table>
		</>
	);
}
