import type { CSSProperties } from "react";
import type { GateDto, RecordDto } from "../../api/schema";
import { NextActs } from "./NextActs";
import type { Begins } from "./nextAct";

/** Five gates as text under one rule; the present one under a heavier rule, with whose turn it is and what it lacks. */
export function Gates({
	record,
	begins,
}: {
	record: RecordDto;
	begins: Begins;
}) {
	return (
		<ol
			aria-label="Gates"
			className="mx-5 grid gap-x-3 border-ink max-md:mx-4 md:grid-cols-(--gates) md:border-t-[1.5px]"
			style={{ "--gates": widths(record) } as CSSProperties}
		>
			{record.path.gates.map((gate) => (
				<li
					key={gate.gate}
					aria-current={gate.now ? "step" : undefined}
					className={`text-[13.6px] leading-[1.32] max-md:grid max-md:grid-cols-[88px_1fr] max-md:gap-x-2 max-md:border-b max-md:border-b-hair max-md:py-2 md:pb-1 ${gate.now ? `max-md:-mx-4 max-md:border-l-[6px] max-md:bg-sheet max-md:px-2.5 md:-mt-[4px] md:border-t-[6px] md:pt-[4.5px] ${rule(record)}` : "md:pt-[7px]"}`}
				>
					<b className="block font-head text-[14.5px] font-[650] [font-stretch:105%]">
						{gate.name}
						<span className="sr-only">
							{gate.closed ? ", closed" : gate.now ? ", present" : ", ahead"}
						</span>
					</b>
					{gate.now ? (
						<div>
							<Present gate={gate} record={record} begins={begins} />
						</div>
					) : (
						<div>
							{gate.evidence && <span className="block">{gate.evidence}</span>}
							<span className="text-soft">
								{gate.closed ? gate.detail : !record.path.ended && lacks(gate)}
							</span>
							<Steps gate={gate} />
						</div>
					)}
				</li>
			))}
		</ol>
	);
}

const rule = (record: RecordDto) =>
	record.path.turn.side === "Yours"
		? "border-yours max-md:border-b-hair"
		: record.path.turn.side === "Clients"
			? "border-theirs max-md:border-b-hair"
			: "border-ink max-md:border-b-hair";

const lacks = (gate: GateDto) =>
	gate.lacks.length > 0 ? `needs: ${gate.lacks.join(", ")}` : "";

/** The present one needs room for what it waits for. */
const widths = (record: RecordDto) =>
	record.path.gates
		.map((gate) => (gate.now ? "minmax(0,1.5fr)" : "minmax(0,1fr)"))
		.join(" ");

/** The kind's own steps inside a gate. */
function Steps({ gate }: { gate: GateDto }) {
	if (gate.milestones.length === 0) return null;
	return (
		<span className="block text-soft">
			{gate.milestones
				.map((one) =>
					one.reached ? `${one.name} ${one.reached}` : `${one.name} to come`,
				)
				.join(", ")}
		</span>
	);
}

function Present({
	gate,
	record,
	begins,
}: {
	gate: GateDto;
	record: RecordDto;
	begins: Begins;
}) {
	const { turn } = record.path;
	const isNew = turn.age === "now";
	return (
		<>
			<span className="block">
				{turn.side === "Yours" && (
					<b className="font-[650] text-yours">
						Your turn{isNew ? "" : ` for ${turn.ageLong}`}:{" "}
					</b>
				)}
				{turn.side === "Clients" && (
					<b className="font-[650] text-theirs">
						The client's {isNew ? "turn" : `for ${turn.ageLong}`}
						{turn.nudged && `, ${turn.nudged}`}:{" "}
					</b>
				)}
				{turn.side === "Nobodys" ? (
					<b className="font-[650]">
						{turn.until ? `Nobody's turn until ${turn.until}` : turn.words}
					</b>
				) : (
					turn.words.charAt(0).toLowerCase() + turn.words.slice(1)
				)}
			</span>
			<span className="text-soft">
				{!record.path.ended &&
					gate.lacks.length > 0 &&
					`still needs: ${gate.lacks.join(", ")}`}
			</span>
			<Steps gate={gate} />
			<NextActs record={record} begins={begins} />
		</>
	);
}
