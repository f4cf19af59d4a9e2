import type {
	BesideTableDto,
	LaidPlaceDto,
	RowNameDto,
} from "../../api/schema";

const counted = (count: number, one: string) =>
	`${count} ${one}${count === 1 ? "" : "s"}`;

/** “3 letters and 1 file”: what there is none of is not named, unless there is nothing. */
export function amounts(letters: number, files: number): string {
	const named = [
		letters > 0 && counted(letters, "letter"),
		files > 0 && counted(files, "file"),
	].filter(Boolean);
	return named.join(" and ") || "Nothing";
}

/** “ with 23 letters”: what comes along with the rows; nothing where nothing does. */
export function alongWords({ letters, files, out }: BesideTableDto): string {
	const along = letters + files - out;
	if (along <= 0) return "";
	if (files === 0) return ` with ${counted(along, "letter")}`;
	if (letters === 0) return ` with ${counted(along, "file")}`;
	return ` with ${along} ${along === 1 ? "letter or file" : "letters and files"}`;
}

const reasons = {
	Number: "by its number",
	Mail: "by the address",
	Name: "by name",
};

/** Why letters or files go to a row, or to none. */
export function why(place: LaidPlaceDto): string {
	if (place.byHand) return "you chose it";
	if (place.inDoubt) return "several rows fit";
	return place.by ? reasons[place.by] : "no row fits";
}

/** A place in words: letters are told by an address, files by their folder. */
export function placeWords(place: LaidPlaceDto): string {
	return place.place || "letters with no address";
}

/** “14 letters”, “1 file”. */
export const countWords = ({ sort, count }: LaidPlaceDto) =>
	counted(count, sort === "Letter" ? "letter" : "file");

/** A row by its number and who it is. */
export const rowWords = (row: RowNameDto) => `${row.row} ${row.name}`;
