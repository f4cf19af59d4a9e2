/** A label and an amount that ends at the right edge, inside a list of such. */
export function AmountRow({
	label,
	amount,
	quiet,
}: {
	label: string;
	amount: string;
	quiet?: boolean;
}) {
	return (
		<div className={`flex gap-3 py-[3px] ${quiet ? "text-soft" : ""}`}>
			<dt>{label}</dt>
			<dd className="num ml-auto text-[0.96em] whitespace-nowrap">{amount}</dd>
		</div>
	);
}
