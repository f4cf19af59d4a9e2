import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { answer, api } from "../../api/client";
import type { TaxSummaryDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { DateField } from "../../ui/DateField";
import { isDay, withDay } from "../../ui/days";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { Shown } from "../../ui/Shown";
import { Cell, Head, Table } from "../../ui/Table";
import { useAct } from "../useAct";
import { Books } from "./Books";
import { BookYears } from "./BookYears";

/** For the accountant: tax by rate, and each year as a folder. */
export default function AccountantPage() {
	useEffect(() => {
		document.title = "Accountant, Gesamt";
	}, []);
	return (
		<main className="px-5 pb-8 max-md:px-4">
			<Books />
			<h1 className="pt-4 pb-3">For the accountant</h1>
			<div className="grid items-start gap-x-10 gap-y-8 lg:grid-cols-2">
				<Tax />
				<BookYears />
			</div>
		</main>
	);
}

function Tax() {
	const [days, setDays] = useState<{ from?: string; until?: string }>({});
	const act = useAct();
	const tax = useQuery({
		queryKey: ["over", "tax", days],
		queryFn: () =>
			answer(api.GET("/api/money/tax", { params: { query: days } })),
		placeholderData: (before) => before,
	});
	const set = (name: "from" | "until", data: TaxSummaryDto) => (day: string) =>
		isDay(day) && setDays(withDay(data, name, day));
	return (
		<section aria-label="Tax">
			<h2 className="rule pb-1.5">Tax</h2>
			<Shown query={tax}>
				{(data) => (
					<>
						<div className="flex flex-wrap items-end gap-3 py-3 print:hidden">
							<DateField
								label="From"
								back
								value={data.from}
								onChange={set("from", data)}
							/>
							<DateField
								label="To"
								back
								value={data.until}
								onChange={set("until", data)}
							/>
							<Button
								onClick={() =>
									setDays({ from: data.lastFrom, until: data.lastUntil })
								}
							>
								The quarter before
							</Button>
						</div>
						<Select
							label="Owed"
							value={data.as ?? "Billed"}
							onChange={(e) =>
								act.run(() =>
									answer(
										api.POST("/api/money/tax", {
											body: { as: e.target.value as TaxSummaryDto["as"] },
										}),
									),
								)
							}
						>
							<option value="Billed">
								when an invoice is issued (as billed)
							</option>
							<option value="Received">
								when the money comes (as received)
							</option>
						</Select>
						<Refused of={act.refusal} />
						{data.currencies.map((one) => (
							<Rates key={one.currency} of={one} />
						))}
						{data.currencies.length === 0 && (
							<p className="py-3 text-soft">
								No invoice and no cost falls into these days.
							</p>
						)}
					</>
				)}
			</Shown>
		</section>
	);
}

function Rates({ of }: { of: TaxSummaryDto["currencies"][number] }) {
	const rows = (
		name: string,
		all: TaxSummaryDto["currencies"][number]["output"],
		sum: string,
	) => (
		<tbody>
			{all.map((row) => (
				<tr key={row.rate}>
					<Cell>
						{name}, {row.rate}
					</Cell>
					<Cell end className="num">
						{row.net}
					</Cell>
					<Cell end className="num">
						{row.tax}
					</Cell>
				</tr>
			))}
			<tr>
				<Cell sum>{name}, in all</Cell>
				<Cell sum end />
				<Cell sum end className="num">
					{sum}
				</Cell>
			</tr>
		</tbody>
	);
	return (
		<div className="pt-4">
			<Table
				caption={`Tax in ${of.currency}`}
				head={
					<tr>
						<Head>{of.currency}</Head>
						<Head end>net</Head>
						<Head end>tax</Head>
					</tr>
				}
			>
				{rows("charged", of.output, of.outputTax)}
				{rows("paid with costs", of.input, of.inputTax)}
			</Table>
			<p className="pt-2">
				Charged less paid: <b className="num font-[650]">{of.toPay}</b>
			</p>
			{of.rounding && (
				<p className="under">
					Rounded amounts leave {of.rounding} besides, without tax.
				</p>
			)}
			{of.ahead && (
				<p className="under">
					{of.ahead} came ahead of any invoice and has no tax yet.
				</p>
			)}
		</div>
	);
}
