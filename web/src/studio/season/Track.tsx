import type { SeasonDto } from "../../api/schema";

type Row = SeasonDto["rows"][number];
type Scale = SeasonDto["scale"];

const height = 44;
const bar = { y: 18, height: 11 };

/** A project across the months: what is done is solid, what is in work hatched, what is ahead dotted; dots are payments, the upright is the date that matters. */
export function Track({
	row,
	scale,
	ends,
}: {
	row: Row;
	scale: Scale;
	/** The last row: today's rule is named under it. */
	ends?: boolean;
}) {
	const at = (days: number) => `${(100 * days) / scale.days}%`;
	return (
		<svg
			role="img"
			aria-label={said(row)}
			width="100%"
			height={height}
			className="block overflow-visible"
			data-ends={ends}
		>
			{row.rest && (
				<line
					x1={at(row.rest.from)}
					x2={at(row.rest.until)}
					y1={bar.y + 6}
					y2={bar.y + 6}
					className="stroke-soft"
					strokeDasharray="4 3"
				/>
			)}
			{row.phases.map((phase, i) => (
				<rect
					key={`${phase.words}${i}`}
					x={at(phase.from)}
					width={at(phase.until - phase.from)}
					y={bar.y}
					height={bar.height}
					className={looks[phase.state]}
				>
					<title>{phase.words}</title>
				</rect>
			))}
			{row.dots.map((dot, i) => (
				<circle
					key={`${dot.words}${i}`}
					cx={at(dot.at)}
					cy={bar.y + 19}
					r={dot.sort === "Late" ? 4 : 3.2}
					className={dots[dot.sort]}
					strokeDasharray={dot.sort === "ToCome" ? "1.6 1.4" : undefined}
				>
					<title>{dot.words}</title>
				</circle>
			))}
			<Today scale={scale} />
			{row.date && (
				<g>
					<line
						x1={at(row.date.at)}
						x2={at(row.date.at)}
						y1={4}
						y2={36}
						className="stroke-ink"
						strokeWidth={1.8}
					/>
					<text
						x={at(row.date.at)}
						y={13}
						dx={row.date.at > scale.days / 2 ? -5 : 5}
						textAnchor={row.date.at > scale.days / 2 ? "end" : "start"}
						className="fill-ink font-head text-[12.4px] font-semibold [paint-order:stroke] stroke-plaster [stroke-width:4px]"
					>
						{row.date.words}
					</text>
				</g>
			)}
		</svg>
	);
}

/** Today's rule, through every row. */
export function Today({ scale }: { scale: Scale }) {
	if (scale.today == null) return null;
	const at = `${(100 * (scale.today + 0.5)) / scale.days}%`;
	return (
		<line
			x1={at}
			x2={at}
			y1={-1}
			y2="102%"
			className="stroke-yours"
			strokeWidth={1.6}
		/>
	);
}

const looks: Record<Row["phases"][number]["state"], string> = {
	Done: "fill-ink stroke-ink",
	InWork: "fill-[url(#in-work)] stroke-ink",
	Resting: "fill-none stroke-soft [stroke-dasharray:5_3]",
	Ahead: "fill-none stroke-(--date) [stroke-dasharray:1.5_1.5]",
};

const dots: Record<Row["dots"][number]["sort"], string> = {
	Received: "fill-ink stroke-ink",
	Sent: "fill-sheet stroke-ink",
	Late: "fill-[url(#in-work)] stroke-ink",
	ToCome: "fill-none stroke-(--date)",
};

/** The same in words. */
function said(row: Row) {
	return [
		row.title,
		...row.phases.map((phase) => phase.words),
		row.date?.words,
		row.rest?.words,
		...row.dots.map((dot) => dot.words),
	]
		.filter(Boolean)
		.join("; ");
}

/** Hatching, defined once on the page. */
export function Patterns() {
	return (
		<svg aria-hidden width="0" height="0" className="absolute">
			<defs>
				<pattern
					id="in-work"
					width="5"
					height="5"
					patternUnits="userSpaceOnUse"
					patternTransform="rotate(45)"
				>
					<rect width="5" height="5" className="fill-sheet" />
					<rect width="2.4" height="5" className="fill-ink" />
				</pattern>
			</defs>
		</svg>
	);
}
