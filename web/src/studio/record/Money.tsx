import type { RecordDto } from "../../api/schema";
import { AmountRow } from "../../ui/AmountRow";
import { Block } from "./Block";

/** What is agreed, paid and to come. */
export function Money({
	money,
}: {
	money: NonNullable<RecordDto["sheet"]["money"]>;
}) {
	return (
		<Block title="Money">
			<div
				className="my-2 flex h-3.5 border-[1.5px] border-ink"
				role="img"
				aria-label={`${money.paidShare} per cent of the agreed price is paid`}
			>
				<span className="bg-ink" style={{ width: `${money.paidShare}%` }} />
				<span className="flex-1 bg-[repeating-linear-gradient(135deg,var(--hatch)_0_1.5px,transparent_1.5px_5px)]" />
			</div>
			<dl className="text-[14.3px]">
				{money.lines.map((line, i) => (
					<AmountRow
						key={`${line.label}${i}`}
						label={line.label}
						amount={line.amount}
					/>
				))}
			</dl>
		</Block>
	);
}
