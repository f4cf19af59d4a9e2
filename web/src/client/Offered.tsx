import type { ChoiceLineDto } from "../api/schema";

/** What a line offers, and what it costs at the end of the row. */
export function Offered({ line }: { line: ChoiceLineDto }) {
	return (
		<span className="grid flex-1 grid-cols-[1fr_auto] gap-3">
			<span>
				{line.words}
				{line.detail && (
					<span className="block text-[14.5px] text-soft">{line.detail}</span>
				)}
			</span>
			<span className="num font-[650] whitespace-nowrap">{line.price}</span>
		</span>
	);
}
