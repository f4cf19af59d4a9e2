import type { MoneyOverviewDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { type Column, isDown, looks, type Show, wordsOf } from "./shows";
import { useWidth } from "./useWidth";

const height = 236;
const left = 66;
const pad = 8;

/** Each month or year as a column: what came and what is to come above the line, what was spent below it, and a mark where that leaves it. */
export function YearChart({
	money,
	billed,
	at,
	onOpen,
}: {
	money: MoneyOverviewDto;
	billed: boolean;
	/** The first day of the column that is open. */
	at?: string;
	onOpen: (column: Column, show?: Show) => void;
}) {
	const { place, width } = useWidth(1240);
	const { top, bottom, ticks } = money.scale;
	const y = (minor: number) =>
		pad + ((top - minor) / (top - bottom || 1)) * (height - 2 * pad);
	const step = (width - left) / money.columns.length;
	const bar = Math.min(64, step * 0.66);
	return (
		<div ref={place}>
			<svg
				role="img"
				aria-label={`${money.head.title}: ${money.head.received} ${billed ? "billed" : "received"}, ${money.head.spent} spent`}
				width={width}
				height={height}
				className="block"
			>
				<Hatches />
				{ticks.map((tick) => (
					<text
						key={tick.at}
						x={left - 10}
						y={y(tick.at) + 4}
						textAnchor="end"
						className="num fill-soft text-[12px]"
					>
						{tick.words}
					</text>
				))}
				{money.columns.map((column, i) => (
					<g key={column.from} transform={`translate(${left + i * step} 0)`}>
						{/* biome-ignore lint/a11y/noStaticElementInteractions: for a pointer; the months below are pressed by key */}
						<rect
							width={step}
							height={height}
							className={`cursor-pointer ${column.from === at ? "fill-sheet stroke-ink" : "fill-transparent"}`}
							onClick={() => onOpen(column)}
						/>
						{stacked(column).map((part) => (
							// biome-ignore lint/a11y/noStaticElementInteractions: for a pointer; the parts beside the entries are pressed by key
							<rect
								key={part.show}
								x={(step - bar) / 2}
								width={bar}
								y={y(part.to)}
								height={Math.max(1, y(part.from) - y(part.to))}
								className={`cursor-pointer ${looks[part.show]}`}
								onClick={() => onOpen(column, part.show)}
							>
								<title>
									{`${column.long}: ${part.amount} ${wordsOf(part.show, billed)}`}
								</title>
							</rect>
						))}
						{column.result && (
							<path
								d={`M ${(step - bar) / 2 - 4} ${y(column.result.minor)} h ${bar + 8}`}
								className="stroke-yours stroke-2"
							>
								<title>{`${column.long}: ${column.result.amount} left`}</title>
							</path>
						)}
					</g>
				))}
				<line x1={left} x2={width} y1={y(0)} y2={y(0)} className="stroke-ink" />
			</svg>
			<div
				className="grid"
				style={{
					marginLeft: left,
					gridTemplateColumns: `repeat(${money.columns.length}, minmax(0, 1fr))`,
				}}
			>
				{money.columns.map((column) => (
					<Button
						key={column.from}
						kind="line"
						aria-pressed={column.from === at}
						aria-label={`${nameOf(column, step)}, ${column.long}`}
						className={`grid min-h-6 place-items-center overflow-hidden py-1 font-head text-[13px] font-semibold ${column.from === at ? "bg-ink text-(--on-ink)" : column.present ? "text-ink underline underline-offset-4" : "text-soft"}`}
						onClick={() => onOpen(column)}
					>
						{nameOf(column, step)}
					</Button>
				))}
			</div>
			<Figures money={money} billed={billed} />
		</div>
	);
}

/** A letter, where there is no room for more. */
const nameOf = (column: Column, room: number) =>
	room < 34 ? column.name.slice(0, 1) : column.name;

/** From where to where each part of a column reaches, in minor units. */
function stacked(column: Column) {
	let up = 0;
	let down = 0;
	return column.parts.map((part) => {
		const size = Math.abs(part.minor);
		if (isDown(part.show) || part.minor < 0) {
			const to = down;
			down -= size;
			return { ...part, from: down, to };
		}
		const from = up;
		up += size;
		return { ...part, from, to: up };
	});
}

/** The same as a table, for who does not see it. */
function Figures({
	money,
	billed,
}: {
	money: MoneyOverviewDto;
	billed: boolean;
}) {
	const shows = [
		...new Set(
			money.columns.flatMap((column) => column.parts.map((part) => part.show)),
		),
	];
	return (
		<div className="sr-only">
			<table>
				<caption>{money.head.title}, in figures</caption>
				<thead>
					<tr>
						<th scope="col">when</th>
						{shows.map((show) => (
							<th key={show} scope="col">
								{wordsOf(show, billed)}
							</th>
						))}
						<th scope="col">left</th>
					</tr>
				</thead>
				<tbody>
					{money.columns.map((column) => (
						<tr key={column.from}>
							<th scope="row">{column.long}</th>
							{shows.map((show) => (
								<td key={show}>
									{column.parts.find((part) => part.show === show)?.amount}
								</td>
							))}
							<td>{column.result?.amount}</td>
						</tr>
					))}
				</tbody>
			</table>
		</div>
	);
}

function Hatches() {
	return (
		<defs>
			<pattern
				id="late-money"
				width="7"
				height="7"
				patternUnits="userSpaceOnUse"
				patternTransform="rotate(-45)"
			>
				<rect width="7" height="7" className="fill-sheet" />
				<rect width="7" height="3.4" className="fill-ink" />
			</pattern>
			<pattern
				id="likely-money"
				width="4"
				height="8"
				patternUnits="userSpaceOnUse"
			>
				<rect width="1.2" height="8" className="fill-soft" />
			</pattern>
		</defs>
	);
}

/** What the shapes mean. */
export function MoneyLegend({ billed }: { billed: boolean }) {
	const shown = (Object.keys(looks) as Show[]).filter(
		(show) => !(billed && (show === "Sent" || show === "Late")),
	);
	return (
		<ul
			aria-label="What the shapes mean"
			className="flex flex-wrap gap-x-5 gap-y-1 pt-2 text-[13px] text-soft"
			style={{ paddingLeft: left }}
		>
			{shown.map((show) => (
				<li key={show} className="flex items-center gap-2">
					<svg aria-hidden width="22" height="12">
						<rect x="1" y="1" width="20" height="10" className={looks[show]} />
					</svg>
					{wordsOf(show, billed)}
				</li>
			))}
			<li className="flex items-center gap-2">
				<svg aria-hidden width="22" height="12">
					<path d="M1 6h20" className="stroke-yours stroke-2" />
				</svg>
				what that leaves
			</li>
		</ul>
	);
}
