import { Link } from "react-router";
import type { MoneyOverviewDto, RecurringCostDto } from "../../api/schema";
import { Button } from "../../ui/Button";

type Every = MoneyOverviewDto["every"];
type Paid = Every["clients"][number]["months"][number];

/** Who pays every month, and what is paid every month. */
export function EveryMonth({
	every,
	onOpen,
	onNew,
}: {
	every: Every;
	onOpen: (cost: RecurringCostDto) => void;
	onNew: () => void;
}) {
	const running = every.costs.filter((cost) => !cost.stopped).length;
	return (
		<section aria-label="Every month">
			<div className="rule flex flex-wrap items-baseline gap-x-2.5 pb-1.5">
				<h2>Every month</h2>
				<span className="text-soft">
					{every.clients.length}{" "}
					{every.clients.length === 1 ? "client" : "clients"}, {running}{" "}
					{running === 1 ? "cost" : "costs"}
				</span>
			</div>
			{every.clients.length > 0 && (
				<table className="w-full border-collapse">
					<caption className="sr-only">Who has paid, by month</caption>
					<thead className="text-[13px] text-soft">
						<tr className="border-b border-hair">
							<th className="sr-only" scope="col">
								client
							</th>
							{every.months.map((month) => (
								<th key={month} scope="col" className="py-1 font-normal">
									{month}
								</th>
							))}
							<th className="sr-only" scope="col">
								each time
							</th>
						</tr>
					</thead>
					<tbody>
						{every.clients.map((client) => (
							<tr
								key={client.project + client.amount}
								className="border-b border-hair"
							>
								<th scope="row" className="py-2 pr-2 text-left font-normal">
									<Link to={`/projects/${client.project}`} data-walk>
										{client.title}
									</Link>
								</th>
								{client.months.map((paid, i) => (
									<td key={every.months[i]} className="w-10 text-center">
										<Square paid={paid} />
									</td>
								))}
								<td className="num w-20 text-right">{client.amount}</td>
							</tr>
						))}
					</tbody>
				</table>
			)}
			<div className="flex items-end justify-between gap-3 border-b border-hair pt-3 pb-1 text-[13px] text-soft">
				<span>
					Costs that book themselves
					{running > 0 && (
						<>
							, <span className="num">{every.costsAMonth}</span> a month
						</>
					)}
				</span>
				{every.costs.length > 0 && <span>a year</span>}
			</div>
			<ul>
				{every.costs.map((cost) => (
					<li
						key={cost.id}
						className="grid grid-cols-[minmax(0,1fr)_auto_84px] items-baseline gap-x-3 border-b border-hair py-2"
					>
						<Button
							kind="line"
							className="min-w-0 wrap-anywhere"
							data-walk
							onClick={() => onOpen(cost)}
						>
							{cost.title}
						</Button>
						<span className="text-[13.5px] whitespace-nowrap text-soft">
							{cost.next}
						</span>
						<span
							className={`num text-right ${cost.stopped ? "text-soft line-through" : ""}`}
						>
							{cost.yearly}
						</span>
					</li>
				))}
			</ul>
			<p className="pt-2">
				<Button kind="word" onClick={onNew}>
					a cost that comes again
				</Button>
			</p>
		</section>
	);
}

const words: Record<Paid, string> = {
	None: "nothing was asked",
	ToCome: "to come",
	Sent: "sent, not due",
	Late: "late",
	Paid: "paid",
};

const squares: Record<Paid, string> = {
	None: "fill-none stroke-none",
	ToCome: "fill-none stroke-(--date) [stroke-dasharray:1.5_1.5]",
	Sent: "fill-sheet stroke-ink",
	Late: "fill-[url(#late-money)] stroke-ink",
	Paid: "fill-ink stroke-ink",
};

function Square({ paid }: { paid: Paid }) {
	return (
		<svg
			role="img"
			aria-label={words[paid]}
			width="18"
			height="18"
			className="inline"
		>
			<rect x="1" y="1" width="15" height="15" className={squares[paid]} />
			<title>{words[paid]}</title>
		</svg>
	);
}
