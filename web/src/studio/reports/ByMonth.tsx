import type { ReportsDto } from "../../api/schema";
import { Select } from "../../ui/Select";
import { useWidth } from "../money/useWidth";
import type { Reports } from "./useReports";

const height = 164;
const left = 30;
const foot = height - 38;

/** Month by month what came in, what of it became work, and how many clients were new. */
export function ByMonth({
	data,
	reports,
}: {
	data: ReportsDto;
	reports: Reports;
}) {
	const { columns } = data;
	const { place, width } = useWidth(1240);
	const most = Math.max(
		4,
		...columns.map((one) => Math.max(one.came, one.newClients)),
	);
	const step = (width - left) / Math.max(1, columns.length);
	const bar = Math.min(40, step * 0.62);
	const y = (count: number) => foot - (count / most) * (foot - 8);
	const isMonths = !/^\d+$/.test(columns[0]?.name ?? "");
	const open = (from: string) => reports.open({ of: "Came", at: from });
	const every = Math.ceil(30 / step);
	return (
		<section aria-labelledby="by-month" className="pt-8">
			<div className="flex flex-wrap items-baseline gap-x-2.5">
				<h2 id="by-month">{isMonths ? "Month by month" : "Year by year"}</h2>
				<span className="text-soft">by the day the inquiry came</span>
				<span className="ml-auto print:hidden">
					<Select
						label="Open a month"
						hidden
						bare
						value={reports.pick.at ?? ""}
						onChange={(e) =>
							e.target.value ? open(e.target.value) : reports.close()
						}
					>
						<option value="">open one</option>
						{columns.map((one) => (
							<option key={one.from} value={one.from}>
								{one.long}
							</option>
						))}
					</Select>
				</span>
			</div>
			<div className="rule" />
			<div ref={place}>
				<svg
					role="img"
					aria-label={`${data.head.came} came, ${data.head.won} of them became work`}
					width={width}
					height={height}
					className="block"
				>
					{[most, Math.round(most / 2), 0].map((count) => (
						<g key={count}>
							<line
								x1={left}
								x2={width}
								y1={y(count)}
								y2={y(count)}
								className={count === 0 ? "stroke-ink" : "stroke-hair"}
							/>
							<text
								x={left - 8}
								y={y(count) + 4}
								textAnchor="end"
								className="num fill-soft text-[12px]"
							>
								{count}
							</text>
						</g>
					))}
					{columns.map((one, i) => (
						<g key={one.from} transform={`translate(${left + i * step} 0)`}>
							{/* biome-ignore lint/a11y/noStaticElementInteractions: for a pointer; a month is chosen by key above */}
							<rect
								width={step}
								height={height}
								className={`cursor-pointer ${one.from === reports.pick.at ? "fill-sheet" : "fill-transparent"}`}
								onClick={() => open(one.from)}
							>
								<title>{`${one.long}: ${one.came} came, ${one.won} became work, ${one.newClients} new ${one.newClients === 1 ? "client" : "clients"}`}</title>
							</rect>
							<g className="pointer-events-none">
								<rect
									x={(step - bar) / 2}
									width={bar}
									y={y(one.came)}
									height={foot - y(one.came)}
									className="fill-sheet stroke-ink"
								/>
								<rect
									x={(step - bar) / 2}
									width={bar}
									y={y(one.won)}
									height={foot - y(one.won)}
									className="fill-ink"
								/>
								{one.newClients > 0 && (
									<path
										d={`M ${step / 2} ${y(one.newClients) - 5} l 5 5 l -5 5 l -5 -5 z`}
										className="fill-sheet stroke-ink stroke-[1.5]"
									/>
								)}
							</g>
							<text
								x={step / 2}
								y={foot + 16}
								textAnchor={
									i === columns.length - 1 && step < 34 ? "end" : "middle"
								}
								className="num fill-soft text-[12px]"
							>
								{i % every === 0 && one.name.split(" ")[0]}
								{/* its year, once */}
								{isMonths && (i === 0 || one.from.slice(5, 7) === "01") && (
									<tspan
										x={step / 2}
										dy="14"
										className="fill-ink font-semibold"
									>
										{one.from.slice(0, 4)}
									</tspan>
								)}
							</text>
						</g>
					))}
				</svg>
				<Figures columns={columns} />
			</div>
			<ul
				aria-label="What the shapes mean"
				className="flex flex-wrap gap-x-5 gap-y-1 pt-2 text-[13px] text-soft"
			>
				<li className="flex items-center gap-2">
					<svg aria-hidden width="16" height="12">
						<rect
							x="1"
							y="1"
							width="14"
							height="10"
							className="fill-sheet stroke-ink"
						/>
					</svg>
					came in
				</li>
				<li className="flex items-center gap-2">
					<svg aria-hidden width="16" height="12">
						<rect x="1" y="1" width="14" height="10" className="fill-ink" />
					</svg>
					of them became work
				</li>
				<li className="flex items-center gap-2">
					<svg aria-hidden width="14" height="14">
						<path
							d="M7 2l5 5-5 5-5-5z"
							className="fill-sheet stroke-ink stroke-[1.5]"
						/>
					</svg>
					new clients, by the day they first booked
				</li>
			</ul>
		</section>
	);
}

/** The same as a table, for who does not see it. */
function Figures({ columns }: { columns: ReportsDto["columns"] }) {
	return (
		<div className="sr-only">
			<table>
				<caption>What came, in figures</caption>
				<thead>
					<tr>
						<th scope="col">when</th>
						<th scope="col">came in</th>
						<th scope="col">became work</th>
						<th scope="col">new clients</th>
					</tr>
				</thead>
				<tbody>
					{columns.map((one) => (
						<tr key={one.from}>
							<th scope="row">{one.long}</th>
							<td>{one.came}</td>
							<td>{one.won}</td>
							<td>{one.newClients}</td>
						</tr>
					))}
				</tbody>
			</table>
		</div>
	);
}
