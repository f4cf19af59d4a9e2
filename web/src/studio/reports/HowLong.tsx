import type { ReportsDto } from "../../api/schema";
import { useWidth } from "../money/useWidth";
import { FigureButton } from "./FigureButton";
import type { Reports } from "./useReports";

type Length = ReportsDto["lengths"]["gates"][number];

const height = 232;
const left = 40;
const right = 12;
const top = 12;
const foot = 206;

/** Each gate has a line of its own, told apart by how it is broken. */
const dashes: Record<Length["gate"], string> = {
	Lead: "",
	Proposal: "6 3",
	Contract: "1.5 3",
	Payment: "9 3 1.5 3",
	Delivery: "14 4",
};

const ticks: [number, string][] = [
	[0, "0"],
	[1, "1 day"],
	[7, "1 week"],
	[14, "2 weeks"],
	[30, "1 month"],
	[61, "2 months"],
	[122, "4 months"],
	[243, "8 months"],
	[365, "1 year"],
	[730, "2 years"],
	[1825, "5 years"],
];

/** How many are still at a gate after so many days; the first days are drawn wider. */
export function HowLong({
	data,
	reports,
}: {
	data: ReportsDto;
	reports: Reports;
}) {
	const { gates } = data.lengths;
	return (
		<section aria-labelledby="how-long">
			<div className="flex flex-wrap items-baseline gap-x-2.5">
				<h2 id="how-long">How long they take</h2>
				<span className="text-soft">until half of them left a gate</span>
			</div>
			<div className="rule" />
			{gates.length === 0 ? (
				<p className="py-3 text-soft">
					Nobody has stood at a gate yet for these days.
				</p>
			) : (
				<>
					<Curves gates={gates} longest={data.lengths.longest} />
					<ul className="flex flex-wrap gap-x-5 gap-y-1 pt-1 text-[13.5px] text-soft">
						{gates.map((one) => (
							<li key={one.gate} className="flex items-center gap-2">
								<svg aria-hidden width="28" height="8">
									<path
										d="M0 4h28"
										className="stroke-ink stroke-2"
										strokeDasharray={dashes[one.gate]}
									/>
								</svg>
								<FigureButton
									name={`${one.gate} ${one.median}: ${one.count} stood there, ${one.open} of them not seen to leave`}
									onOpen={() => reports.open({ of: "Stood", gate: one.gate })}
								>
									{one.gate} {one.median}
								</FigureButton>
							</li>
						))}
					</ul>
					<p className="pt-1.5 text-[13px] text-soft">
						The first stay at each gate. Open ones are counted as long as they
						have waited; the first days are drawn wider.
					</p>
				</>
			)}
		</section>
	);
}

function Curves({ gates, longest }: { gates: Length[]; longest: number }) {
	const { place, width } = useWidth(530);
	const most = Math.max(14, longest);
	const x = (days: number) =>
		left + Math.sqrt(days / most) * (width - left - right);
	const y = (share: number) => foot - share * (foot - top);
	const shown = ticks.filter(([days]) => days <= most);
	const medians = gates
		.filter((one) => one.days !== null)
		.sort((a, b) => Number(a.days) - Number(b.days));
	return (
		<div ref={place}>
			<svg
				role="img"
				aria-label={gates.map((one) => `${one.gate} ${one.median}`).join(", ")}
				width={width}
				height={height}
				className="block"
			>
				{(["all", "half", "none"] as const).map((words, i) => (
					<g key={words}>
						<line
							x1={left}
							x2={width - right}
							y1={y(1 - i / 2)}
							y2={y(1 - i / 2)}
							className="stroke-hair"
						/>
						<text x="0" y={y(1 - i / 2) + 4} className="fill-soft text-[12px]">
							{words}
						</text>
					</g>
				))}
				{shown.map(([days, words], i) =>
					// one that has no room is left out
					i > 0 &&
					x(days) - x(shown[i - 1]?.[0] ?? 0) < 52 &&
					i % 2 === 0 ? null : (
						<text
							key={words}
							x={x(days)}
							y={height - 6}
							textAnchor={
								i === 0 ? "start" : x(days) > width - 40 ? "end" : "middle"
							}
							className="num fill-soft text-[12px]"
						>
							{words}
						</text>
					),
				)}
				{gates.map((one) => (
					<path
						key={one.gate}
						d={`M ${x(0)} ${y(1)}${one.steps
							.map((step) => ` H ${x(step.days)} V ${y(step.share)}`)
							.join("")} H ${x(most)}`}
						className="fill-none stroke-ink stroke-[1.8]"
						strokeDasharray={dashes[one.gate]}
					/>
				))}
				{medians.map((one, i) => (
					<g key={one.gate}>
						<circle
							cx={x(Number(one.days))}
							cy={y(0.5)}
							r="4"
							className="fill-ink"
						/>
						<text
							x={
								x(Number(one.days)) +
								(x(Number(one.days)) > width - 90 ? -8 : 8)
							}
							y={y(0.5) + (i % 2 === 0 ? -9 : 19)}
							textAnchor={x(Number(one.days)) > width - 90 ? "end" : "start"}
							className="fill-ink text-[12.5px] [paint-order:stroke] stroke-plaster [stroke-width:4px]"
						>
							{one.gate}
						</text>
					</g>
				))}
			</svg>
			<Figures gates={gates} />
		</div>
	);
}

/** The same as a table, for who does not see it. */
function Figures({ gates }: { gates: Length[] }) {
	return (
		<div className="sr-only">
			<table>
				<caption>How long they take, in figures</caption>
				<thead>
					<tr>
						<th scope="col">gate</th>
						<th scope="col">until half had left</th>
						<th scope="col">stood there</th>
						<th scope="col">not seen to leave</th>
						<th scope="col">still there after a month</th>
					</tr>
				</thead>
				<tbody>
					{gates.map((one) => (
						<tr key={one.gate}>
							<th scope="row">{one.gate}</th>
							<td>{one.median}</td>
							<td>{one.count}</td>
							<td>{one.open}</td>
							<td>
								{Math.round(
									100 *
										(one.steps.filter((step) => step.days <= 30).at(-1)
											?.share ?? 1),
								)}{" "}
								%
							</td>
						</tr>
					))}
				</tbody>
			</table>
		</div>
	);
}
