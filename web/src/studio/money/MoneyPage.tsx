import { useEffect, useState } from "react";
import { Link } from "react-router";
import type { MoneyOverviewDto, RecurringCostDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { DateField } from "../../ui/DateField";
import { isDay, withDay } from "../../ui/days";
import { Shown } from "../../ui/Shown";
import { useKeys } from "../Keys";
import { useOpens } from "../useOpens";
import { Books } from "./Books";
import { Chances } from "./Chances";
import { EveryMonth } from "./EveryMonth";
import { Choices, MoneyHead } from "./MoneyHead";
import { OwedToYou } from "./OwedToYou";
import { Parts } from "./Parts";
import { RecurringCost } from "./RecurringCost";
import { wordsOf } from "./shows";
import { type Money, useMoney } from "./useMoney";
import { WriteCost } from "./WriteCost";
import { WriteIncome } from "./WriteIncome";
import { MoneyLegend, YearChart } from "./YearChart";

/** What stands in a window over the page. */
type Opened =
	| { cost: number | undefined; receipt?: File }
	| { income: number | undefined }
	| { again: RecurringCostDto | undefined }
	| { chances: true };

/** The year by month: what came, what is owed and to come, what was spent; every figure opens what it is made of. */
export default function MoneyPage() {
	const money = useMoney();
	const [opened, setOpened] = useState<Opened>();
	useEffect(() => {
		document.title = "Money, Gesamt";
	}, []);
	useKeys({ c: () => setOpened({ cost: undefined }) });
	useOpens("write", (what) =>
		setOpened(what === "income" ? { income: undefined } : { cost: undefined }),
	);
	const billed = money.asked.as === "Billed";
	return (
		<main
			className="px-5 pb-8 max-md:px-4"
			onDragOver={(e) => e.preventDefault()}
			onDrop={(e) => {
				const [receipt] = e.dataTransfer.files;
				if (!receipt) return;
				e.preventDefault();
				setOpened({ cost: undefined, receipt });
			}}
		>
			<Books>
				{money.money.data && (
					<Choices data={money.money.data} money={money} billed={billed} />
				)}
			</Books>
			<Shown
				query={money.money}
				usual={<Link to="/money">Show this year</Link>}
			>
				{(data) => (
					<>
						<MoneyHead data={data} money={money} billed={billed} />
						<Days data={data} money={money} />
						<YearChart
							money={data}
							billed={billed}
							at={money.undated ? undefined : columnOf(data, money)?.from}
							onOpen={(column, show) =>
								money.go({
									at: column.from,
									show,
									all: undefined,
									undated: undefined,
									most: undefined,
								})
							}
						/>
						<MoneyLegend billed={billed} />
						<Undated
							data={data}
							money={money}
							billed={billed}
							onChances={() => setOpened({ chances: true })}
						/>
						<div className="grid items-start gap-x-6 gap-y-7 pt-5 lg:grid-cols-2 xl:grid-cols-[minmax(0,1fr)_minmax(0,1.12fr)_minmax(0,0.9fr)]">
							<OwedToYou owed={data.owed} />
							<Parts
								data={data}
								money={money}
								column={
									money.all || money.undated ? undefined : columnOf(data, money)
								}
								billed={billed}
								onCost={(id) => setOpened({ cost: id })}
								onIncome={(id) => setOpened({ income: id })}
							>
								<Button
									kind="word"
									onClick={() => setOpened({ cost: undefined })}
								>
									write down a cost
								</Button>
								<Button
									kind="word"
									onClick={() => setOpened({ income: undefined })}
								>
									other income
								</Button>
							</Parts>
							<EveryMonth
								every={data.every}
								onOpen={(cost) => setOpened({ again: cost })}
								onNew={() => setOpened({ again: undefined })}
							/>
						</div>
						<p className="pt-6 print:hidden">
							<a href={`/api/money/entries.csv?${asTable(data, money)}`}>
								All entries of {data.head.title} as a table (CSV)
							</a>
						</p>
					</>
				)}
			</Shown>
			<Window opened={opened} onClose={() => setOpened(undefined)} />
		</main>
	);
}

function Window({ opened, onClose }: { opened?: Opened; onClose: () => void }) {
	if (!opened) return null;
	if ("cost" in opened)
		return (
			<WriteCost id={opened.cost} receipt={opened.receipt} onClose={onClose} />
		);
	if ("income" in opened)
		return <WriteIncome id={opened.income} onClose={onClose} />;
	if ("again" in opened)
		return <RecurringCost cost={opened.again} onClose={onClose} />;
	return <Chances onClose={onClose} />;
}

/** The column that is open: the one of the address, else the present one, else the last. */
const columnOf = (data: MoneyOverviewDto, money: Money) =>
	data.columns.find((column) => column.from === money.at) ??
	data.columns.find((column) => column.present) ??
	data.columns.at(-1);

const asTable = (data: MoneyOverviewDto, money: Money) =>
	new URLSearchParams({
		from: data.head.from,
		until: data.head.until,
		as: money.asked.as ?? "Received",
	});

/** The first and last day of any other range. */
function Days({ data, money }: { data: MoneyOverviewDto; money: Money }) {
	const { from, until } = money.asked;
	if (!from && !until) return null;
	const set = (name: "from" | "until") => (day: string) =>
		isDay(day) && money.go({ ...withDay(data.head, name, day), at: undefined });
	return (
		<div className="flex flex-wrap gap-3 pb-3 print:hidden">
			<DateField label="From" back value={from ?? ""} onChange={set("from")} />
			<DateField label="To" back value={until ?? ""} onChange={set("until")} />
		</div>
	);
}

/** What is to come on a day nobody knows; how likely is worked out; what the bank brought. */
function Undated({
	data,
	money,
	billed,
	onChances,
}: {
	data: MoneyOverviewDto;
	money: Money;
	billed: boolean;
	onChances: () => void;
}) {
	return (
		<p className="flex flex-wrap items-baseline gap-x-5 gap-y-1 pt-1.5 text-[13.5px] text-soft print:hidden">
			{data.undated.map((part) => (
				<Button
					key={part.show}
					kind="line"
					className="min-h-6"
					onClick={() =>
						money.go({ show: part.show, undated: "1", all: undefined })
					}
				>
					on no day yet: <b className="num font-[650]">{part.amount}</b>{" "}
					{wordsOf(part.show, billed)}
				</Button>
			))}
			<Button kind="word" onClick={onChances}>
				how likely
			</Button>
			{data.bankWaits > 0 && (
				<Link to="/money/bank">
					{data.bankWaits === 1
						? "1 line of the bank waits"
						: `${data.bankWaits} lines of the bank wait`}
				</Link>
			)}
		</p>
	);
}
