import type { ColumnSort, ListReader, ListSort } from "../../api/schema";

export const sortWords: Record<ListSort, string> = {
	Rows: "List",
	Board: "Mood board",
	Notes: "Shared notes",
};

export const readerWords: Record<ListReader, string> = {
	Owner: "only you",
	Shown: "the client reads it",
	Edited: "the client may change it",
};

export const columnWords: Record<ColumnSort, string> = {
	Text: "text",
	Number: "number",
	Amount: "amount",
	Date: "date",
	YesNo: "yes or no",
	OneOf: "one of several",
	Person: "person",
	Link: "link",
};
