import type { GateDto, RecordDto } from "../../api/schema";

/** Five gates as text under one rule; the present one under a heavier rule, with whose turn it is and what it lacks. */
export function Gates({ record }: { record: RecordDto }) {
	return (
		<ol
			aria-label="Gates"
			className="mx-5 grid gap-x-3 border-t-[1.5px] border-ink md:grid-cols-5"
		>
			{record.path.gates.map((gate) => (
				<li
					key={gate.gate}
					aria-current={gate.now ? "step" : undefined}
					className={`text-[13.6px] leading-[1.32] ${gate.now ? `mt-1 border-t-[6px] md:-mt-[4px] pt-[4.5px] ${rule(record)}` : "pt-[7px]"} pb-1`}
				>
					<b className="block font-head text-[14.5px] font-[650] [font-stretch:105%]">
						{gate.gate}
						<span className="sr-only">
							{gate.closed ? ", closed" : gate.now ? ", present" : ", ahead"}
						</span>
					</b>
					{gate.now ? (
						<Present gate={gate} record={record} />
					) : (
						<>
							{gate.evidence && <span className="block">{gate.evidence}</span>}
							<span className="text-soft">
								{gate.closed ? gate.detail : lacks(gate)}
							</span>
						</>
					)}
				</li>
			))}
		</ol>
	);
}

const rule = (record: RecordDto) =>
	record.path.turn.side === "Yours"
		? "border-yours"
		: record.path.turn.side === "Clients"
			? "border-theirs"
			: "border-ink";

const lacks = (gate: GateDto) =>
	gate.lacks.length > 0 ? `needs: ${gate.lacks.join(", ")}` : "";

function Present({ gate, record }: { gate: GateDto; record: RecordDto }) {
	const { turn } = record.path;
	return (
		<>
			<span className="block">
				{turn.side === "Yours" && (
					<b className="font-[650] text-yours">
						Your turn for {turn.ageLong}:{" "}
					</b>
				)}
				{turn.side === "Clients" && (
					<b className="font-[650] text-theirs">
						The client's for {turn.ageLong}:{" "}
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
				{gate.lacks.length > 0 && `still needs: ${gate.lacks.join(", ")}`}
			</span>
		</>
	);
}
