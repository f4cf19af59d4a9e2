import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { answer, api } from "../../api/client";
import type { MoneyOverviewDto, MoneyPartsDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Shown } from "../../ui/Shown";
import { type Column, type Show, wordsOf } from "./shows";
import type { Money } from "./useMoney";

/** What a figure is made of: the entries of a month, or one part of it. */
export function Parts({
	data,
	money,
	column,
	billed,
	onCost,
	onIncome,
	children,
}: {
	data: MoneyOverviewDto;
	money: Money;
	/** The month that is open; none for all the days. */
	column?: Column;
	billed: boolean;
	onCost: (id: number) => void;
	onIncome: (id: number) => void;
	children: React.ReactNode;
}) {
	const query = {
		...money.asked,
		year: undefined,
		from: (column ?? data.head).from,
		until: (column ?? data.head).until,
		show: money.show,
		undated: money.undated || undefined,
		most: money.most,
	};
	const parts = useQuery({
		queryKey: ["over", "money-parts", query],
		queryFn: () => answer(api.GET("/api/money/parts", { params: { query } })),
		placeholderData: (before) => before,
	});
	const title = money.undated
		? "On no day yet"
		: column
			? column.long
			: data.head.title;
	return (
		<section aria-label={title}>
			<div className="flex flex-wrap items-baseline gap-x-2.5">
				<h2>{title}</h2>
				<span className="text-soft" aria-live="polite">
					{parts.data && counted(parts.data, money.show)}
				</span>
				<span className="ml-auto flex gap-3">{children}</span>
			</div>
			<div className="rule flex flex-wrap gap-x-4 gap-y-1 pt-1 pb-1.5 text-[13.5px] print:hidden">
				{column?.parts.map((part) => (
					<Button
						key={part.show}
						kind="line"
						aria-pressed={money.show === part.show}
						className={`min-h-6 ${money.show === part.show ? "font-[650]" : "text-soft"}`}
						onClick={() =>
							money.go({
								show: money.show === part.show ? undefined : part.show,
								most: undefined,
							})
						}
					>
						<span className="num">{part.amount}</span>{" "}
						{wordsOf(part.show, billed)}
					</Button>
				))}
			</div>
			<Shown query={parts}>
				{(found) => (
					<>
						<ul>
							{found.rows.map((row) => (
								<Row
									key={row.key}
									row={row}
									onCost={onCost}
									onIncome={onIncome}
								/>
							))}
						</ul>
						{found.count === 0 && (
							<p className="py-3 text-soft">Nothing moved in these days.</p>
						)}
						{found.more > 0 && (
							<Button
								className="mt-3"
								onClick={() =>
									money.go({
										most: `${Math.min(2000, found.rows.length + 200)}`,
									})
								}
							>
								Show more: {found.more} besides these
							</Button>
						)}
					</>
				)}
			</Shown>
		</section>
	);
}

const counted = (parts: MoneyPartsDto, show: Show | undefined) =>
	show
		? `${parts.sum} ${parts.title}`
		: `${parts.count} ${parts.count === 1 ? "entry" : "entries"}`;

function Row({
	row,
	onCost,
	onIncome,
}: {
	row: MoneyPartsDto["rows"][number];
	onCost: (id: number) => void;
	onIncome: (id: number) => void;
}) {
	const { of } = row;
	const opened = of.cost
		? () => onCost(of.cost as number)
		: of.income
			? () => onIncome(of.income as number)
			: undefined;
	return (
		<li className="grid grid-cols-[minmax(0,1fr)_auto_96px] items-baseline gap-x-4 border-b border-hair py-2">
			<span className="min-w-0">
				{opened ? (
					<Button kind="line" className="font-[650]" data-walk onClick={opened}>
						{row.title}
					</Button>
				) : (
					<Link to={`/projects/${of.project}`} data-walk>
						<b className="font-[650]">{row.title}</b>
					</Link>
				)}
				<span className="under block wrap-anywhere">
					{row.words}
					{of.receipt && (
						<>
							{row.words && ", "}
							<a
								href={`/api/costs/${of.cost}/receipt`}
								aria-label={`receipt of ${row.title}`}
							>
								receipt
							</a>
						</>
					)}
				</span>
			</span>
			<span className="num text-[13.5px] whitespace-nowrap text-soft">
				{row.on}
			</span>
			<span className="num text-right whitespace-nowrap">{row.amount}</span>
		</li>
	);
}
