import type { MoneyOverviewDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Select } from "../../ui/Select";
import type { Show } from "./shows";
import type { Money } from "./useMoney";

/** What the days come to, in one sentence; each figure opens what it is made of. */
export function MoneyHead({
	data,
	money,
	billed,
}: {
	data: MoneyOverviewDto;
	money: Money;
	billed: boolean;
}) {
	const { head, owed } = data;
	const open = (show: Show) => () =>
		money.go({ show, all: "1", at: undefined, undated: undefined });
	return (
		<div className="flex flex-wrap items-end gap-x-5 gap-y-2 pt-3 pb-2">
			<h1>Money</h1>
			<p className="text-soft">
				{head.title}
				{isNow(data) ? " so far" : ""}:{" "}
				<Figure onOpen={open("Received")}>{head.received}</Figure>{" "}
				{billed ? "billed" : "received"},{" "}
				{head.other && (
					<>
						<Figure onOpen={open("Other")}>{head.other}</Figure> other income,{" "}
					</>
				)}
				<Figure onOpen={open("Spent")}>{head.spent}</Figure> spent, tax
				included; that leaves{" "}
				<b className="num font-[650] text-ink">{head.result}</b>.{" "}
				{owed.count > 0 && (
					<>
						<b className="num font-[650] text-ink">{owed.sum}</b> is owed to you
						{owed.rows.some((row) => row.late) && (
							<>
								, <b className="num font-[650] text-ink">{owed.late}</b> of it
								late
							</>
						)}
						.
					</>
				)}
			</p>
		</div>
	);
}

const isNow = (data: MoneyOverviewDto) =>
	data.columns.some((column) => column.present);

function Figure({
	children,
	onOpen,
}: {
	children: string;
	onOpen: () => void;
}) {
	return (
		<Button kind="line" className="inline" onClick={onOpen}>
			<b className="num font-[650] text-ink underline decoration-hair underline-offset-4">
				{children}
			</b>
		</Button>
	);
}

/** Which figures, of which days, in which currency. */
export function Choices({
	data,
	money,
	billed,
}: {
	data: MoneyOverviewDto;
	money: Money;
	billed: boolean;
}) {
	const { year, from, until } = money.asked;
	const shown =
		from || until ? "range" : (year ?? String(data.choices.years[0]));
	const to = (choice: string) => {
		const none = { from: undefined, until: undefined, at: undefined };
		if (choice === "range")
			money.go({
				...none,
				from: data.head.from,
				until: data.head.until,
				year: undefined,
			});
		else money.go({ ...none, year: choice, show: undefined, all: undefined });
	};
	return (
		<div className="ml-auto flex flex-wrap items-end gap-2 print:hidden">
			<Select
				label="Which figures"
				hidden
				value={billed ? "Billed" : "Received"}
				onChange={(e) => money.go({ as: e.target.value })}
			>
				<option value="Received">as received</option>
				<option value="Billed">as billed</option>
			</Select>
			<Select
				label="Which days"
				hidden
				value={shown}
				onChange={(e) => to(e.target.value)}
			>
				{data.choices.years.map((one) => (
					<option key={one} value={one}>
						{one}
					</option>
				))}
				<option value="all">all years</option>
				<option value="range">from … to …</option>
			</Select>
			{data.choices.currencies.length > 1 && (
				<Select
					label="Currency"
					hidden
					value={money.asked.currency ?? data.choices.currencies[0]}
					onChange={(e) => money.go({ currency: e.target.value })}
				>
					{data.choices.currencies.map((one) => (
						<option key={one}>{one}</option>
					))}
				</Select>
			)}
		</div>
	);
}
