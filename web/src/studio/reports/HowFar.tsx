import type { ReportsDto } from "../../api/schema";
import { useWidth } from "../money/useWidth";
import { FigureButton } from "./FigureButton";
import type { Figure, Reports } from "./useReports";

type GateReport = ReportsDto["gates"][number];

/** At each gate those that came to it: gone on, ended there, or open there still. */
export function HowFar({
	data,
	reports,
}: {
	data: ReportsDto;
	reports: Reports;
}) {
	const most = Math.max(1, ...data.gates.map((gate) => gate.came));
	return (
		<section aria-labelledby="how-far">
			<div className="flex flex-wrap items-baseline gap-x-2.5">
				<h2 id="how-far">How far they came</h2>
				<span className="text-soft">of {data.head.came} that came in</span>
			</div>
			<div className="rule" />
			{data.gates.length === 0 && (
				<p className="py-3 text-soft">
					No inquiry came in these days. Each one that comes is counted here,
					gate by gate.
				</p>
			)}
			<ul>
				{data.gates.map((gate) => (
					<li
						key={gate.gate}
						className="grid min-h-[51px] grid-cols-[82px_minmax(0,1fr)_minmax(0,0.56fr)] items-center gap-x-3.5 border-b border-hair py-2 max-md:grid-cols-[82px_minmax(0,1fr)]"
					>
						<b className="font-head font-[650]">{gate.gate}</b>
						<Bar gate={gate} most={most} open={reports.open} />
						<p className="text-[13.5px] text-soft max-md:col-start-2">
							<Words gate={gate} open={reports.open} />
						</p>
					</li>
				))}
			</ul>
			{data.gates.length > 0 && (
				<p className="pt-2 text-[13px] text-soft">
					Solid went on, hatched ended there, dotted is open. The share is of
					those that went on, were lost or went quiet.
				</p>
			)}
		</section>
	);
}

function Bar({
	gate,
	most,
	open,
}: {
	gate: GateReport;
	most: number;
	open: (figure: Figure) => void;
}) {
	const { place, width } = useWidth(390);
	const of = (count: number) => (count / most) * (width - 2);
	const [passed, ended, still] = [
		of(gate.passed),
		of(gate.ended),
		of(gate.open),
	];
	const parts = [
		["Passed", 1, passed, "fill-ink stroke-ink"],
		["Ended", 1 + passed, ended, "fill-[url(#ended-report)] stroke-ink"],
		[
			"Open",
			1 + passed + ended,
			still,
			"fill-transparent stroke-(--date) [stroke-dasharray:1.5_1.5]",
		],
	] as const;
	return (
		<div ref={place}>
			<svg aria-hidden width={width} height="30" className="block">
				<defs>
					<pattern
						id="ended-report"
						width="6"
						height="6"
						patternUnits="userSpaceOnUse"
						patternTransform="rotate(45)"
					>
						<rect width="6" height="6" className="fill-sheet" />
						<rect width="1.5" height="6" className="fill-ink" />
					</pattern>
				</defs>
				{parts.map(
					([figure, x, wide, look]) =>
						wide > 0 && (
							// biome-ignore lint/a11y/noStaticElementInteractions: for a pointer; the words beside it are pressed by key
							<rect
								key={figure}
								x={x}
								y="1"
								width={wide}
								height="28"
								className={`cursor-pointer ${look}`}
								onClick={() => open({ of: figure, gate: gate.gate })}
							/>
						),
				)}
				{passed > 84 && (
					<text
						x="10"
						y="20"
						className="num pointer-events-none fill-(--on-ink) font-head text-[13px] font-semibold"
					>
						{gate.passed} went on
					</text>
				)}
			</svg>
		</div>
	);
}

/** The same in words, each figure pressed. */
function Words({
	gate,
	open,
}: {
	gate: GateReport;
	open: (figure: Figure) => void;
}) {
	const at = gate.gate;
	return (
		<>
			{gate.passed > 0 && (
				<FigureButton
					name={`${gate.passed} went on${gate.goOn === null ? "" : `, ${gate.goOn} %`}, from ${at}`}
					onOpen={() => open({ of: "Passed", gate: at })}
				>
					{gate.passed} went on
					{gate.goOn !== null && `, ${gate.goOn} %`}
				</FigureButton>
			)}
			{gate.reasons.map((one, i) => (
				<span key={one.reason}>
					{(gate.passed > 0 || i > 0) && ", "}
					<FigureButton
						name={`${one.words} at ${at}`}
						onOpen={() => open({ of: "Ended", gate: at, reason: one.reason })}
					>
						{one.words}
					</FigureButton>
				</span>
			))}
			{gate.open > 0 && (
				<>
					{(gate.passed > 0 || gate.reasons.length > 0) && ", "}
					<FigureButton
						name={`${gate.open} open at ${at}`}
						onOpen={() => open({ of: "Open", gate: at })}
					>
						{gate.open} open
					</FigureButton>
				</>
			)}
		</>
	);
}
