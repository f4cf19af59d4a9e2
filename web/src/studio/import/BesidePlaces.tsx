import { useId, useState } from "react";
import type {
	ImportDto,
	LaidPlaceDto,
	MatchingDto,
	RowNameDto,
} from "../../api/schema";
import { Cell, Head, Table } from "../../ui/Table";
import { TextField } from "../../ui/TextField";
import { amounts, placeWords, why } from "./besideWords";

/** Folders and addresses with the row they go to; the owner may choose another. */
export function Places({
	table: { beside, matching },
	onChange,
}: {
	table: ImportDto;
	onChange: (matching: MatchingDto) => void;
}) {
	const list = useId();
	const all = beside.letters + beside.files;
	return (
		<div className="grid gap-2 pt-2">
			<p>
				<b className="font-[650]">{amounts(beside.letters, beside.files)}</b>
				{beside.out > 0
					? `, of which ${beside.out === all ? "all" : beside.out} go nowhere and would be left out.`
					: ", all with their rows."}
			</p>
			<datalist id={list}>
				{beside.rows.map((row) => (
					<option key={row.row} value={rowWords(row)} />
				))}
			</datalist>
			<Table
				caption="Where letters and files go"
				head={
					<tr>
						<Head>From</Head>
						<Head>What</Head>
						<Head>Goes to row</Head>
						<Head>Why</Head>
					</tr>
				}
			>
				<tbody>
					{beside.places.map((place) => (
						<tr key={`${place.sort} ${place.place} ${place.row} ${place.by}`}>
							<Cell className="max-w-72 break-words font-[650]">
								{placeWords(place)}
							</Cell>
							<Cell className="whitespace-nowrap">
								{place.sort === "Letter"
									? amounts(place.count, 0)
									: amounts(0, place.count)}
							</Cell>
							<Cell className="min-w-56">
								<RowField
									key={`${place.row}`}
									place={place}
									rows={beside.rows}
									list={list}
									onChoose={(row) =>
										onChange({
											...matching,
											places: { ...matching.places, [place.place]: row },
										})
									}
								/>
							</Cell>
							<Cell className="text-soft">{why(place)}</Cell>
						</tr>
					))}
				</tbody>
			</Table>
			{beside.more > 0 && (
				<p className="text-soft">
					and {beside.more} more, all of which go as their folders and addresses
					say
				</p>
			)}
		</div>
	);
}

const rowWords = (row: RowNameDto) => `${row.row} ${row.name}`;

/** A row by its number or out of the list of all; empty leaves what it is of out. */
function RowField({
	place,
	rows,
	list,
	onChoose,
}: {
	place: LaidPlaceDto;
	rows: readonly RowNameDto[];
	list: string;
	onChoose: (row: number) => void;
}) {
	const now = rows.find((row) => row.row === place.row);
	const [text, setText] = useState(now ? rowWords(now) : "");
	const [wrong, setWrong] = useState<string>();
	function choose(typed: string) {
		const number = Number(typed.trim().split(" ")[0] || 0);
		const known = number === 0 || rows.some((row) => row.row === number);
		setWrong(
			known ? undefined : "The number of a row that reads right, or nothing.",
		);
		if (known && number !== (place.row ?? 0)) onChoose(number);
	}
	return (
		<TextField
			label={`${placeWords(place)} goes to row`}
			hidden
			list={list}
			placeholder="left out"
			value={text}
			wrong={wrong}
			onChange={(e) => {
				setText(e.target.value);
				// one chosen out of the list is meant as it stands
				if (rows.some((row) => rowWords(row) === e.target.value))
					choose(e.target.value);
			}}
			onBlur={(e) => choose(e.target.value)}
			onKeyDown={(e) => e.key === "Enter" && choose(e.currentTarget.value)}
		/>
	);
}
