import type { ListEntryDto } from "../../api/schema";

/** What can be done with the entries of a list. Each throws what was refused; what nobody may do here is left out. */
export type ListActs = {
	/** Writes an entry; a key that is not known yet makes a new one. */
	save: (
		key: string,
		edition: number,
		cells: Record<string, string>,
	) => Promise<unknown>;
	strike: (entry: ListEntryDto, struck: boolean) => Promise<unknown>;
	takeOut?: (entry: ListEntryDto) => Promise<unknown>;
	/** Puts the entries in an order, by their keys. */
	order?: (keys: string[]) => Promise<unknown>;
	/** Says that a step of a plan is done. */
	done?: (key: string, column: string, done: boolean) => Promise<unknown>;
	addPictures?: (files: File[]) => Promise<unknown>;
};

/** What an entry is called: its first words, or its picture's name. */
export const nameOf = (entry: ListEntryDto) =>
	entry.cells.find((cell) => cell.words)?.words || entry.picture || "entry";

/** The entries with one a place further up or down. */
export function shifted(
	entries: readonly ListEntryDto[],
	key: string,
	by: 1 | -1,
): string[] {
	const keys = entries.map((one) => one.key);
	const at = keys.indexOf(key);
	const to = at + by;
	if (to < 0 || to >= keys.length) return keys;
	keys.splice(to, 0, ...keys.splice(at, 1));
	return keys;
}
