import { useId } from "react";
import type { ImportDto, MatchingDto } from "../../api/schema";
import { amounts, countWords, placeWords, rowWords, why } from "./besideWords";
import { RowField } from "./RowField";

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
					? `, of which ${beside.out === all ? "all" : beside.out} ${beside.out === 1 ? "goes" : "go"} nowhere and would be left out.`
					: ", all with their rows."}
			</p>
			<datalist id={list}>
				{beside.rows.map((row) => (
					<option key={row.row} value={rowWords(row)} />
				))}
			</datalist>
			<ul aria-label="Where letters and files go">
				{beside.places.map((place, i) => (
					<li
						// letters of one address may go to several rows
						key={`${place.sort} ${place.place} ${beside.places.slice(0, i).filter((one) => one.place === place.place).length}`}
						className="grid items-center gap-x-4 gap-y-1 border-b border-hair py-1.5 text-[14.3px] md:grid-cols-[minmax(0,1fr)_minmax(0,1fr)_9rem]"
					>
						<p className="break-words">
							<b className="font-[650]">{placeWords(place)}</b>
							<span className="text-soft">, {countWords(place)}</span>
						</p>
						<RowField
							label={`${placeWords(place)}, ${countWords(place)}, goes to row`}
							row={place.row}
							rows={beside.rows}
							list={list}
							onChoose={(row) =>
								onChange({
									...matching,
									places: { ...matching.places, [place.place]: row },
								})
							}
						/>
						<p className="text-soft">{why(place)}</p>
					</li>
				))}
			</ul>
			{beside.more > 0 && (
				<p className="text-soft">
					and {beside.more} more, which go as their folders and addresses say
				</p>
			)}
		</div>
	);
}
