import { Link } from "react-router";
import type { RecordDto } from "../../api/schema";
import { AmountRow } from "../../ui/AmountRow";
import { Button } from "../../ui/Button";
import { Block } from "./Block";
import { Recurring } from "./Recurring";

/** What is agreed, paid and to come, and the way to an invoice by hand. */
export function Money({ record }: { record: RecordDto }) {
	const { money } = record.sheet;
	return (
		<Block title="Money">
			{money?.paidShare != null && (
				<div
					className="my-2 flex h-3.5 border-[1.5px] border-ink"
					role="img"
					aria-label={`${money.paidShare} per cent of the agreed price is paid`}
				>
					<span className="bg-ink" style={{ width: `${money.paidShare}%` }} />
					<span className="flex-1 bg-[repeating-linear-gradient(135deg,var(--hatch)_0_1.5px,transparent_1.5px_5px)]" />
				</div>
			)}
			{money && (
				<dl className="text-[14.3px]">
					{money.lines.map((line, i) => (
						<AmountRow
							key={`${line.label}${i}`}
							label={line.label}
							amount={line.amount}
						/>
					))}
				</dl>
			)}
			{money && <Recurring record={record} money={money} />}
			<div className="pt-2">
				<Button asChild size="small">
					<Link to={`/projects/${record.id}/bill`}>Write an invoice</Link>
				</Button>
			</div>
		</Block>
	);
}
