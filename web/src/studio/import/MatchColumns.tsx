import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../../api/client";
import type { Refusal } from "../../api/refusal";
import type {
	DateStyle,
	ImportColumn,
	ImportDto,
	MatchingDto,
	NumberStyle,
} from "../../api/schema";
import { Alert } from "../../ui/Alert";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { Cell, Head, Table } from "../../ui/Table";
import { useAct } from "../useAct";
import { Beside } from "./Beside";
import { alongWords } from "./besideWords";
import { Rows } from "./ImportRows";

export const columns: Record<ImportColumn, string> = {
	LeaveOut: "leave it out",
	Name: "name",
	Organisation: "organisation",
	Mail: "mail",
	Phone: "phone",
	Profile: "profile",
	Title: "project",
	Number: "number of the project",
	Kind: "kind of work",
	Source: "how they came",
	Campaign: "campaign",
	Inquired: "day of the inquiry",
	Date: "the date that matters",
	Standing: "where it stands",
	Amount: "price, net",
	Words: "notes",
};

export const dates: Record<DateStyle, string> = {
	YearMonthDay: "2027-03-12",
	DayMonthYear: "12.3.2027 or 12/3/2027",
	MonthDayYear: "3/12/2027",
	DayMonthName: "12 Mar 2027",
};

export const numbers: Record<NumberStyle, string> = {
	Point: "1,200.50",
	Comma: "1.200,50",
};

export function Match({
	table,
	problem,
	onChange,
}: {
	table: ImportDto;
	problem: Refusal | null;
	onChange: (matching: MatchingDto) => void;
}) {
	const act = useAct();
	const { matching } = table;
	const kinds = useQuery({
		queryKey: ["kinds"],
		queryFn: () => answer(api.GET("/api/kinds")),
	});
	const right = table.total - table.wrongRows;
	return (
		<div className="grid gap-5">
			<p>
				<b className="font-[650]">{table.name}</b>: {table.total} rows
				{table.separator && `, columns apart by “${table.separator}”`}.
			</p>
			<Table
				caption="Columns of the table"
				head={
					<tr>
						<Head>Column</Head>
						<Head>Is</Head>
						<Head>For example</Head>
					</tr>
				}
			>
				<tbody>
					{table.headings.map((heading, i) => (
						<tr key={`${heading}${i}`}>
							<Cell className="font-[650]">{heading}</Cell>
							<Cell>
								<Select
									label={`${heading} is`}
									hidden
									value={matching.columns[i]}
									onChange={(e) =>
										onChange({
											...matching,
											columns: matching.columns.map((one, at) =>
												at === i ? (e.target.value as ImportColumn) : one,
											),
										})
									}
								>
									{Object.entries(columns).map(([column, words]) => (
										<option key={column} value={column}>
											{words}
										</option>
									))}
								</Select>
							</Cell>
							<Cell className="text-soft">
								{table.sample
									.map((row) => row[i])
									.filter(Boolean)
									.join("; ")}
							</Cell>
						</tr>
					))}
				</tbody>
			</Table>
			<div className="grid gap-3 md:grid-cols-3">
				<Select
					label="Dates are written"
					hint={
						table.dateStyles.length > 1
							? "more than one way would fit: look at the weekdays below"
							: undefined
					}
					value={matching.dates}
					onChange={(e) =>
						onChange({ ...matching, dates: e.target.value as DateStyle })
					}
				>
					{Object.entries(dates).map(([style, words]) => (
						<option key={style} value={style}>
							{words}
						</option>
					))}
				</Select>
				<Select
					label="Numbers are written"
					hint={
						table.numbersInDoubt
							? "both ways would fit and mean different sums: look at the amounts below"
							: undefined
					}
					value={matching.numbers}
					onChange={(e) =>
						onChange({ ...matching, numbers: e.target.value as NumberStyle })
					}
				>
					{Object.entries(numbers).map(([style, words]) => (
						<option key={style} value={style}>
							{words}
						</option>
					))}
				</Select>
				<Select
					label="Kind of work, where none is named"
					value={String(matching.kind ?? "")}
					onChange={(e) =>
						onChange({ ...matching, kind: Number(e.target.value) || null })
					}
				>
					<option value="">none</option>
					{kinds.data?.map((kind) => (
						<option key={kind.id} value={kind.id}>
							{kind.name}
						</option>
					))}
				</Select>
			</div>
			{problem && <Alert>{problem.message}</Alert>}
			<Rows title="So it reads" rows={table.preview} />
			{table.wrongRows > 0 && (
				<Rows
					title={`${table.wrongRows} row${table.wrongRows === 1 ? "" : "s"} would be left out`}
					rows={table.errors}
				/>
			)}
			<Beside table={table} onChange={onChange} />
			<Refused of={act.refusal} />
			<div>
				<Button
					kind="go"
					disabled={act.busy || right === 0 || problem !== null}
					onClick={() =>
						act.run(() =>
							answer(
								api.POST("/api/imports/{id}/run", {
									params: { path: { id: table.id } },
									body: matching,
								}),
							),
						)
					}
				>
					Take over {right} row{right === 1 ? "" : "s"}
					{alongWords(table.beside)}
				</Button>
			</div>
		</div>
	);
}
