import { useState } from "react";
import { answer, api, upload } from "../../api/client";
import type { ListTableDto, OwnListDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { FilePick } from "../../ui/FilePick";
import { tableFiles } from "../../ui/files/tables";
import { Refused } from "../../ui/Refused";
import { Cell, Head, Table } from "../../ui/Table";
import { TextField } from "../../ui/TextField";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";
import { columnWords } from "./words";

/** Takes over a table: shown as it would be read, with what does not read to be mended, before anything is kept. */
export function TakeTable({
	own,
	onClose,
}: {
	own: OwnListDto;
	onClose: () => void;
}) {
	const [table, setTable] = useState<ListTableDto>();
	const act = useAct();
	const read = (files: File[]) =>
		act.run(async () => {
			const file = files[0];
			if (file)
				setTable(
					await upload<ListTableDto>(`/api/lists/${own.list.id}/table`, file),
				);
		});
	return (
		<Window title="Take over a table" open wide onClose={onClose}>
			<div className="grid gap-3">
				{!table && (
					<p>
						A table with a first row of headings, saved as CSV or as a workbook
						(.xlsx). Columns of the same name are filled; others become new
						ones. Rows keep their order.
					</p>
				)}
				<div>
					<FilePick
						kind={table ? "plain" : "go"}
						accept={tableFiles}
						disabled={act.busy}
						onFiles={read}
					>
						{table ? "Choose another table" : "Choose a table"}
					</FilePick>
				</div>
				<Refused of={act.refusal} />
				{table && (
					<Read
						key={table.rows.length}
						own={own}
						table={table}
						onClose={onClose}
					/>
				)}
			</div>
		</Window>
	);
}

const at = (row: number, column: number) => `${row}.${column}`;

function Read({
	own,
	table,
	onClose,
}: {
	own: OwnListDto;
	table: ListTableDto;
	onClose: () => void;
}) {
	const [mended, setMended] = useState<Record<string, string>>({});
	const act = useAct();
	const take = () =>
		act.run(async () => {
			await answer(
				api.POST("/api/lists/{list}/rows", {
					params: { path: { list: own.list.id } },
					body: {
						columns: [...table.columns],
						rows: table.rows.map((row, r) =>
							row.map((cell, c) => mended[at(r, c)] ?? cell),
						),
					},
				}),
			);
			onClose();
		});
	return (
		<>
			<Table
				caption="The first rows as they are read"
				shown
				head={
					<tr>
						{table.columns.map((column) => (
							<Head key={column.heading}>
								{column.heading || "without a heading"}
								<span className="block font-normal text-soft">
									{column.key
										? columnWords[column.sort]
										: `new, ${columnWords[column.sort]}`}
								</span>
							</Head>
						))}
					</tr>
				}
			>
				<tbody>
					{table.told.map((row, r) => (
						<tr key={r}>
							{row.map((cell, c) => (
								<Cell key={c}>{cell}</Cell>
							))}
						</tr>
					))}
				</tbody>
			</Table>
			{table.rows.length > table.told.length && (
				<p className="text-soft">
					and {table.rows.length - table.told.length} more
				</p>
			)}
			{table.mistakes.length > 0 && (
				<section aria-label="What does not read" className="grid gap-2">
					<h3>
						{table.mistakes.length === 1
							? "One cell does not read"
							: `${table.mistakes.length} cells do not read`}
					</h3>
					{table.mistakes.map((one) => (
						<TextField
							key={at(one.row, one.column)}
							label={`Row ${one.row + 1}, ${table.columns[one.column]?.heading}`}
							hint={one.words}
							value={mended[at(one.row, one.column)] ?? one.text}
							wrong={act.refusal?.of(`rows[${one.row}][${one.column}]`)}
							onChange={(e) =>
								setMended({
									...mended,
									[at(one.row, one.column)]: e.target.value,
								})
							}
						/>
					))}
					<p className="under">Empty a field to leave its cell empty.</p>
				</section>
			)}
			<Refused of={act.refusal} />
			<div>
				<Button kind="go" disabled={act.busy} onClick={take}>
					Take over {table.rows.length} row
					{table.rows.length === 1 ? "" : "s"}
				</Button>
			</div>
		</>
	);
}
