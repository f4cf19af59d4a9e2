import { useEffect, useState } from "react";
import readSheets from "read-excel-file/browser";
import { bytes } from "../../api/client";
import { Alert } from "../Alert";
import { Select } from "../Select";

type Sheets = Awaited<ReturnType<typeof readSheets>>;
type Cell = Sheets[number]["data"][number][number];

const [mostRows, mostColumns] = [500, 60];

/** The cells of a workbook (Office Open XML, ECMA-376), sheet by sheet, as they are kept: without colours, charts and formulas. */
export default function SheetsShown({ address }: { address: string }) {
	const [sheets, setSheets] = useState<Sheets>();
	const [at, setAt] = useState("0");
	const [trouble, setTrouble] = useState(false);
	useEffect(() => {
		bytes(address)
			.then(readSheets)
			.then(setSheets, () => setTrouble(true));
	}, [address]);
	if (trouble)
		return (
			<Alert>
				This table cannot be shown here. Fetch it and open it with your own
				program.
			</Alert>
		);
	if (!sheets) return <p className="under">The table is being opened …</p>;
	const rows = sheets[Number(at)]?.data ?? [];
	const columns = Math.max(0, ...rows.map((row) => row.length));
	return (
		<div className="grid gap-2">
			{sheets.length > 1 && (
				<Select
					label="Sheet"
					value={at}
					onChange={(e) => setAt(e.target.value)}
				>
					{sheets.map((sheet, i) => (
						<option key={sheet.sheet} value={i}>
							{sheet.sheet}
						</option>
					))}
				</Select>
			)}
			{rows.length === 0 ? (
				<p className="text-soft">This sheet is empty.</p>
			) : (
				<section
					aria-label="Cells"
					// biome-ignore lint/a11y/noNoninteractiveTabindex: what can be scrolled is reached by keys
					tabIndex={0}
					className="max-h-[70vh] overflow-auto border border-hair"
				>
					<table className="num text-small">
						<tbody>
							{rows.slice(0, mostRows).map((row, i) => (
								<tr key={i} className="border-b border-hair">
									{row.slice(0, mostColumns).map((cell, j) => (
										<td
											key={j}
											className="max-w-xs border-r border-hair px-2 py-1 align-top break-words"
										>
											{said(cell)}
										</td>
									))}
								</tr>
							))}
						</tbody>
					</table>
				</section>
			)}
			{(rows.length > mostRows || columns > mostColumns) && (
				<p className="under">
					Shown are the first {Math.min(rows.length, mostRows)} of {rows.length}{" "}
					rows and the first {Math.min(columns, mostColumns)} of {columns}{" "}
					columns.
				</p>
			)}
		</div>
	);
}

/** A date of a workbook has no zone: it is read as it stands there. */
const said = (cell: Cell): string =>
	cell instanceof Date
		? cell
				.toISOString()
				.replace("T", " ")
				.replace(/( 00:00)?:00\.000Z$/, "")
		: cell === null
			? ""
			: String(cell);
