import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { answer, api } from "../../api/client";
import type { InvoiceBy, InvoiceShow } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Select } from "../../ui/Select";
import { Shown } from "../../ui/Shown";
import { useNarrowing, WordsField } from "../narrowing";
import { Books } from "./Books";
import { InvoiceTable } from "./InvoiceTable";

const shows: Record<NonNullable<InvoiceShow>, string> = {
	Open: "open",
	Late: "late",
	Paid: "paid or credited",
	All: "all invoices",
	CreditNotes: "credit notes",
};

const bys: Record<NonNullable<InvoiceBy>, string> = {
	Number: "by number",
	Age: "by age",
	Client: "by client",
	Month: "by month",
};

/** All invoices of all clients. */
export default function Invoices() {
	const { search, set } = useNarrowing();
	const query = {
		show: (search.get("show") ?? "Open") as NonNullable<InvoiceShow>,
		by: (search.get("by") ?? "Number") as NonNullable<InvoiceBy>,
		words: search.get("words") ?? undefined,
		client: search.get("client") ? Number(search.get("client")) : undefined,
		month: search.get("month") ?? undefined,
	};
	const most = search.get("most");
	const invoices = useQuery({
		queryKey: ["over", "invoices", search.toString()],
		queryFn: () =>
			answer(
				api.GET("/api/invoices", {
					params: {
						query: { ...query, most: most ? Number(most) : undefined },
					},
				}),
			),
		placeholderData: (before) => before,
	});
	useEffect(() => {
		document.title = "Invoices, Gesamt";
	}, []);
	const table = new URLSearchParams(search);
	table.delete("most");
	return (
		<main className="px-5 pb-8 max-md:px-4">
			<Books />
			<div className="flex flex-wrap items-end gap-3 pt-4 pb-3">
				<h1 className="mr-3">Invoices</h1>
				<Select
					label="Show"
					value={query.show}
					onChange={(e) => set("show", e.target.value)}
				>
					{Object.entries(shows).map(([show, words]) => (
						<option key={show} value={show}>
							{words}
						</option>
					))}
				</Select>
				<Select
					label="Put together"
					value={query.by}
					onChange={(e) => set("by", e.target.value)}
				>
					{Object.entries(bys).map(([by, words]) => (
						<option key={by} value={by}>
							{words}
						</option>
					))}
				</Select>
				<Select
					label="Issued in"
					value={query.month ?? ""}
					onChange={(e) => set("month", e.target.value)}
				>
					<option value="">any month</option>
					{invoices.data?.months.map((month) => (
						<option key={month}>{month}</option>
					))}
				</Select>
				<WordsField
					label="Number, client or project"
					value={query.words ?? ""}
					onChange={(words) => set("words", words)}
				/>
				{invoices.data?.client && (
					<p className="pb-2">
						{invoices.data.client} alone{" "}
						<Button kind="word" onClick={() => set("client", "")}>
							show everybody’s
						</Button>
					</p>
				)}
				<div className="ml-auto flex gap-2">
					<Button asChild>
						<a href={`/api/invoices.csv?${table}`}>As a table (CSV)</a>
					</Button>
				</div>
			</div>
			<Shown query={invoices}>
				{(data) => (
					<>
						<p className="pb-3" aria-live="polite">
							{data.sums.count === 1
								? "1 invoice"
								: `${data.sums.count} invoices`}
							, <span className="num">{data.sums.total}</span>
							{query.show !== "CreditNotes" && (
								<>
									; open <b className="num">{data.sums.owed}</b>, of it late{" "}
									<b className="num">{data.sums.late}</b>
								</>
							)}
						</p>
						<InvoiceTable groups={data.groups} show={query.show} />
						{data.more > 0 && (
							<Button
								className="mt-3"
								onClick={() =>
									set(
										"most",
										String(
											Math.min(
												2000,
												data.sums.count - data.more + Math.min(400, data.more),
											),
										),
									)
								}
							>
								Show more: {data.more} besides these
							</Button>
						)}
					</>
				)}
			</Shown>
		</main>
	);
}
