import type { DraftDto } from "../../api/schema";
import { AmountRow } from "../../ui/AmountRow";

export function Sums({ draft }: { draft: DraftDto }) {
	const priced = draft.priced;
	return (
		<section className="panel p-4">
			<h2 className="pb-1.5">As suggested</h2>
			{draft.missing && <p className="font-[650]">{draft.missing}</p>}
			{priced && (
				<dl className="text-[14.3px]">
					{priced.lines.map((line) => (
						<AmountRow key={line.words} label={line.words} amount={line.net} />
					))}
					<AmountRow label="Net" amount={priced.net} quiet />
					{priced.taxes.map((tax) => (
						<AmountRow
							key={tax.label}
							label={tax.label}
							amount={tax.amount}
							quiet
						/>
					))}
					<div className="mt-1 flex border-t-[1.5px] border-ink pt-1.5 font-head text-[17px] font-[680]">
						<dt>Total</dt>
						<dd className="num ml-auto">{priced.total}</dd>
					</div>
					{priced.instalments.map((part) => (
						<AmountRow
							key={part.label}
							label={part.label}
							amount={part.amount}
						/>
					))}
				</dl>
			)}
		</section>
	);
}
