import type { ReportsDto } from "../../api/schema";
import { FigureButton } from "./FigureButton";
import type { Reports } from "./useReports";

/** How many reminders went before a price was agreed. */
export function Chased({
	data,
	reports,
}: {
	data: ReportsDto;
	reports: Reports;
}) {
	if (data.chased.length === 0) return null;
	const most = Math.max(1, ...data.chased.map((one) => one.count));
	return (
		<section aria-labelledby="chased">
			<div className="flex flex-wrap items-baseline gap-x-2.5">
				<h2 id="chased">Reminders before a yes</h2>
				<span className="text-soft">to a price</span>
			</div>
			<div className="rule" />
			<ul>
				{data.chased.map((one) => (
					<li
						key={one.chases}
						className="grid grid-cols-[88px_minmax(0,1fr)_44px] items-center gap-x-3 border-b border-hair py-1.5"
					>
						<span>{one.words}</span>
						<svg aria-hidden width="100%" height="10" className="block">
							<rect
								width={`${(100 * one.count) / most}%`}
								height="10"
								className="fill-ink"
							/>
						</svg>
						<span className="num text-right">
							{one.count > 0 ? (
								<FigureButton
									name={`${one.count} after ${one.words === "none" ? "no" : one.words} ${one.words === "1" ? "reminder" : "reminders"}`}
									onOpen={() =>
										reports.open({ of: "Chased", chases: `${one.chases}` })
									}
								>
									{one.count}
								</FigureButton>
							) : (
								<span className="text-soft">0</span>
							)}
						</span>
					</li>
				))}
			</ul>
		</section>
	);
}
