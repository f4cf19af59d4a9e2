import type { ReactNode } from "react";
import type { PricedDto } from "../api/schema";
import { AmountRow } from "../ui/AmountRow";

/** What the choice comes to, as the server computed it. */
export function Sum({
	title,
	priced,
	children,
}: {
	title: string;
	priced: PricedDto;
	children?: ReactNode;
}) {
	return (
		<section aria-label={title} className="self-start bg-plaster p-5">
			<h2 className="pb-2">{title}</h2>
			<SumRows priced={priced} />
			{children}
		</section>
	);
}

/** Its lines, sums and payments. */
export function SumRows({ priced }: { priced: PricedDto }) {
	return (
		<dl aria-live="polite" className="text-[15px]">
			{priced.lines.map((line) => (
				<AmountRow
					key={line.key + line.words}
					label={line.words}
					amount={line.net}
				/>
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
			<div className="mt-2 mb-2 flex border-t-[1.5px] border-ink pt-2 font-head text-[21px] font-[680]">
				<dt>Total</dt>
				<dd className="num ml-auto">{priced.total}</dd>
			</div>
			{priced.instalments.map((part) => (
				<AmountRow key={part.label} label={part.label} amount={part.amount} />
			))}
		</dl>
	);
}
