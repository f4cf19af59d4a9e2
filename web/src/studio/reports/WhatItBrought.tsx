import type { ReportBy, ReportsDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Select } from "../../ui/Select";
import { Cell, Head, Table } from "../../ui/Table";
import { FigureButton } from "./FigureButton";
import type { Reports } from "./useReports";

const words: Record<ReportBy, string> = {
	Source: "source",
	Campaign: "campaign",
	Kind: "kind of work",
	Service: "service",
	Client: "client",
	Project: "project",
};

/** Who and what brought how much, and what an hour of it earned. */
export function WhatItBrought({
	data,
	reports,
}: {
	data: ReportsDto;
	reports: Reports;
}) {
	const { by, rows, more, hours } = data.brought;
	const isService = by === "Service";
	return (
		<section aria-labelledby="brought">
			<div className="flex flex-wrap items-baseline gap-x-2.5">
				<h2 id="brought">What it brought</h2>
				<span className="text-soft">
					agreed and booked, net{hours && "; an hour of what is finished"}
				</span>
				<span className="ml-auto print:hidden">
					<Select
						label="By what"
						hidden
						bare
						value={by}
						onChange={(e) =>
							reports.go({
								by: e.target.value,
								rows: undefined,
								key: undefined,
								of: undefined,
							})
						}
					>
						{(Object.keys(words) as ReportBy[]).map((one) => (
							<option key={one} value={one}>
								by {words[one]}
							</option>
						))}
					</Select>
				</span>
			</div>
			<Table
				caption={`What it brought, by ${words[by]}`}
				head={
					<tr>
						<Head>{words[by]}</Head>
						{!isService && <Head end>came</Head>}
						<Head end>booked</Head>
						<Head end>brought</Head>
						{hours && <Head end>an hour</Head>}
					</tr>
				}
			>
				<tbody>
					{rows.map((row) => (
						<tr key={row.key} className="border-b border-hair *:align-middle">
							<Cell>
								<span className="wrap-anywhere">{row.name}</span>
							</Cell>
							{!isService && (
								<Cell end>
									<FigureButton
										name={`${row.came} from ${row.name}`}
										onOpen={() => reports.open({ of: "Came", key: row.key })}
									>
										{row.came}
									</FigureButton>
								</Cell>
							)}
							<Cell end>
								{row.won > 0 ? (
									<FigureButton
										name={`${row.won} booked from ${row.name}`}
										onOpen={() => reports.open({ of: "Won", key: row.key })}
									>
										{row.won}
									</FigureButton>
								) : (
									<span className="text-soft">0</span>
								)}
							</Cell>
							<Cell end>
								{row.won > 0 ? (
									<FigureButton
										name={`${row.brought} from ${row.name}`}
										onOpen={() => reports.open({ of: "Won", key: row.key })}
									>
										{row.brought}
									</FigureButton>
								) : (
									row.brought
								)}
							</Cell>
							{hours && (
								<Cell end>
									{row.anHour ? (
										<FigureButton
											name={`${row.anHour} an hour from ${row.name}, over ${row.worked}`}
											onOpen={() =>
												reports.open({ of: "Hourly", key: row.key })
											}
										>
											{row.anHour}
										</FigureButton>
									) : (
										<span className="text-soft">no hours</span>
									)}
								</Cell>
							)}
						</tr>
					))}
				</tbody>
			</Table>
			{rows.length === 0 && (
				<p className="py-3 text-soft">
					{isService
						? "Nothing is booked yet of what came in these days."
						: "No inquiry came in these days."}
				</p>
			)}
			{more > 0 && (
				<Button
					className="mt-3"
					onClick={() =>
						reports.go({ rows: `${Math.min(500, rows.length + 50)}` })
					}
				>
					Show more: {more} besides these
				</Button>
			)}
			{rows.length > 0 && (
				<p className="pt-2 print:hidden">
					<Button asChild kind="word">
						<a href={reports.table} download>
							As a table (CSV)
						</a>
					</Button>
				</p>
			)}
		</section>
	);
}
