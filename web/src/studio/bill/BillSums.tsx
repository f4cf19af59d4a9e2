import type { BillDraftDto } from "../../api/schema";
import { AmountRow } from "../../ui/AmountRow";

/** What the invoice comes to, and what is missing before it can be issued. */
export function BillSums({ draft }: { draft: BillDraftDto }) {
	const { sums, points, noData } = draft;
	const blocks = points.filter((point) => point.blocks);
	const others = points.filter((point) => !point.blocks);
	return (
		<section className="panel p-4" aria-label="Sums">
			<div className="flex items-baseline pb-1.5">
				<h2>What it comes to</h2>
				<span className="under ml-auto">
					{draft.for.number}, due {draft.for.due}
				</span>
			</div>
			{sums && (
				<dl className="text-[14.3px]">
					{sums.rows.map((row) => (
						<AmountRow
							key={row.label}
							label={row.label}
							amount={row.amount}
							quiet={row.label !== "Net"}
						/>
					))}
					<div className="mt-1 flex border-t-[1.5px] border-ink pt-1.5 font-head text-[17px] font-[680]">
						<dt>To pay</dt>
						<dd className="num ml-auto">{sums.total}</dd>
					</div>
				</dl>
			)}
			{blocks.length > 0 && (
				<>
					<h3 className="pt-3 text-[13px] text-soft">
						Before it can be issued
					</h3>
					<ul className="list-disc pl-5">
						{blocks.map((point) => (
							<li key={point.field + point.words}>{point.words}</li>
						))}
					</ul>
				</>
			)}
			{(others.length > 0 || noData) && (
				<>
					<h3 className="pt-3 text-[13px] text-soft">Worth a look</h3>
					<ul className="list-disc pl-5 text-soft">
						{others.map((point) => (
							<li key={point.words}>{point.words}</li>
						))}
						{noData && <li>It will have no data beside it. {noData}</li>}
					</ul>
				</>
			)}
		</section>
	);
}
