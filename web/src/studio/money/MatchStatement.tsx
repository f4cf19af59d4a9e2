import { useState } from "react";
import { answer, api } from "../../api/client";
import type {
	StatementColumn,
	StatementColumnsDto,
	StatementTakenDto,
} from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { Cell, Head, Table } from "../../ui/Table";
import { TextField } from "../../ui/TextField";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";

const words: Record<StatementColumn, string> = {
	LeaveOut: "leave it out",
	Day: "day of booking",
	Amount: "amount, with its sign",
	In: "money in",
	Out: "money out",
	Party: "name of the other side",
	Text: "text",
	Reference: "payment reference",
	BankReference: "the bank’s own number",
	Currency: "currency",
};

/** Says once what the columns of a bank’s table are. */
export function MatchStatement({
	table,
	onTaken,
	onClose,
}: {
	table: StatementColumnsDto;
	onTaken: (taken: StatementTakenDto) => void;
	onClose: () => void;
}) {
	const [account, setAccount] = useState("");
	const [columns, setColumns] = useState(table.columns);
	const act = useAct();
	return (
		<Window title="What are its columns?" open wide onClose={onClose}>
			<form
				className="grid gap-3"
				onSubmit={(event) => {
					event.preventDefault();
					act.run(async () =>
						onTaken(
							await answer(
								api.POST("/api/bank/statements/{hash}/columns", {
									params: { path: { hash: table.hash } },
									body: { name: table.name, account, columns: [...columns] },
								}),
							),
						),
					);
				}}
			>
				<p>
					<b className="font-[650]">{table.name}</b>. It is remembered for every
					table with these headings.
				</p>
				<TextField
					label="Of which account"
					hint="its IBAN, or the name you give it"
					value={account}
					wrong={act.refusal?.of("account")}
					onChange={(e) => setAccount(e.target.value)}
				/>
				<Table
					caption="Columns of the statement"
					head={
						<tr>
							<Head>Column</Head>
							<Head>Is</Head>
							<Head className="max-md:hidden">For example</Head>
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
										value={columns[i]}
										onChange={(e) =>
											setColumns(
												columns.map((one, at) =>
													at === i ? (e.target.value as StatementColumn) : one,
												),
											)
										}
									>
										{Object.entries(words).map(([column, said]) => (
											<option key={column} value={column}>
												{said}
											</option>
										))}
									</Select>
								</Cell>
								<Cell className="text-soft max-md:hidden">
									{table.rows
										.map((row) => row[i])
										.filter(Boolean)
										.join("; ")}
								</Cell>
							</tr>
						))}
					</tbody>
				</Table>
				<Refused of={act.refusal} />
				<Button
					kind="go"
					type="submit"
					className="justify-self-start"
					disabled={act.busy}
				>
					Take it in
				</Button>
			</form>
		</Window>
	);
}
