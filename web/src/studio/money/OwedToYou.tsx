import { Link } from "react-router";
import type { MoneyOverviewDto } from "../../api/schema";

/** What clients owe, the oldest first. */
export function OwedToYou({ owed }: { owed: MoneyOverviewDto["owed"] }) {
	return (
		<section aria-label="Owed to you">
			<div className="rule flex flex-wrap items-baseline gap-x-2.5 pb-1.5">
				<h2>Owed to you</h2>
				<span className="text-soft">
					{owed.count === 0
						? "nothing"
						: `${owed.count} ${owed.count === 1 ? "invoice" : "invoices"}, ${owed.sum}`}
				</span>
			</div>
			<ul>
				{owed.rows.map((row) => (
					<li
						key={row.number}
						className="grid grid-cols-[minmax(0,1fr)_auto_84px] items-baseline gap-x-4 border-b border-hair py-2"
					>
						<span className="min-w-0">
							<Link to={`/projects/${row.project}`} data-walk>
								<b className="font-[650]">{row.title}</b>
							</Link>
							<span className="under block">{row.number}</span>
						</span>
						<span className="max-w-33 text-right text-[13.5px]">
							<span className={row.late ? "font-[650]" : "text-soft"}>
								{row.when}
							</span>
							{row.next && (
								<span className="block font-[650] text-soft">{row.next}</span>
							)}
						</span>
						<span className="num text-right">{row.amount}</span>
					</li>
				))}
			</ul>
			{owed.count === 0 && (
				<p className="py-3 text-soft">Every invoice is paid.</p>
			)}
			{owed.count > owed.rows.length && (
				<p className="under pt-2">
					<Link to="/money/invoices?by=Age">
						and {owed.count - owed.rows.length} more
					</Link>
				</p>
			)}
		</section>
	);
}
