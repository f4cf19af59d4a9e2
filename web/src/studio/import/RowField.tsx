import { useState } from "react";
import type { RowNameDto } from "../../api/schema";
import { TextField } from "../../ui/TextField";
import { rowWords } from "./besideWords";

/** A row by its number or out of the list of all; empty leaves what it is of out. */
export function RowField({
	label,
	row,
	rows,
	list,
	onChoose,
}: {
	label: string;
	row: number | null;
	rows: readonly RowNameDto[];
	/** The list of all rows to choose from, by its id. */
	list: string;
	onChoose: (row: number) => void;
}) {
	const known = rows.find((one) => one.row === row);
	// what is being typed; null while it stands as it was read
	const [typed, setTyped] = useState<string | null>(null);
	const [wrong, setWrong] = useState<string>();
	function choose(text: string) {
		const number = Number(text.trim().split(" ")[0] || 0);
		if (number !== 0 && !rows.some((one) => one.row === number)) {
			setWrong("The number of a row that reads right, or nothing.");
			return;
		}
		setWrong(undefined);
		setTyped(null);
		if (number !== (row ?? 0)) onChoose(number);
	}
	return (
		<TextField
			label={label}
			hidden
			list={list}
			placeholder="left out"
			value={typed ?? (known ? rowWords(known) : "")}
			wrong={wrong}
			onChange={(e) => {
				// one chosen out of the list is meant as it stands
				if (rows.some((one) => rowWords(one) === e.target.value))
					choose(e.target.value);
				else setTyped(e.target.value);
			}}
			onBlur={() => typed !== null && choose(typed)}
			onKeyDown={(e) => e.key === "Enter" && typed !== null && choose(typed)}
		/>
	);
}
