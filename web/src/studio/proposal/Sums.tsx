import type { DraftDto } from "../../api/schema";
import { AmountRow } from "../../ui/AmountRow";

/** What the proposal comes to as it is suggested. */
export function Sums({ draft }: { draft: DraftDto }) {
	const priced = draft.priced;
	const title = draft.amends ? "From then on" : "As suggested";
	return (
		<section className="panel p-4" aria-label={title}>
			<div className="flex items-baseline pb-1.5">
				<h2>{title}</h2>
				<span className="under ml-auto">
					{draft.offer.gross ? "prices with tax" : "prices before tax"}
				</span>
			</div>
			{!priced && (
				<p className="text-soft">
					It has a price once what is missing below is there.
				</p>
			)}
			{priced && (
				<dl className="text-[14.3px]">
					{priced.lines.map((line) => (
						<AmountRow key={line.key} label={line.words} amount={line.net} />
					))}
					{priced.less && (
						<AmountRow
							label={priced.less.label}
							amount={priced.less.amount}
							quiet
						/>
					)}
					<AmountRow label="Net" amount={priced.net} quiet />
					{priced.taxes.map((tax) => (
						<AmountRow
							key={tax.label}
							label={tax.label}
							amount={tax.amount}
							quiet
						/>
					))}
					{priced.rounding && (
						<AmountRow label="Rounding" amount={priced.rounding} quiet />
					)}
					<div className="mt-1 flex border-t-[1.5px] border-ink pt-1.5 font-head text-[17px] font-[680]">
						<dt>Total</dt>
						<dd className="num ml-auto">{priced.total}</dd>
					</div>
					{priced.instalments.map((part) => (
						<AmountRow
							key={part.label}
							label={part.label}
							amount={part.amount}
							quiet
						/>
					))}
					{draft.withEveryExtra && (
						<AmountRow
							label="with every extra"
							amount={draft.withEveryExtra}
							quiet
						/>
					)}
				</dl>
			)}
			{draft.expected && <Expected of={draft.expected} />}
		</section>
	);
}

/** What the price list expects it to take; only the owner sees it. */
function Expected({ of }: { of: NonNullable<DraftDto["expected"]> }) {
	return (
		<dl
			aria-label="Only for you"
			className="mt-2 border-t border-hair pt-2 text-[14.3px]"
		>
			{of.hours && <AmountRow label="Expected hours" amount={of.hours} quiet />}
			{of.cost && <AmountRow label="Expected costs" amount={of.cost} quiet />}
			{of.hourly && (
				<AmountRow label="Brings an hour, net" amount={of.hourly} quiet />
			)}
		</dl>
	);
}
