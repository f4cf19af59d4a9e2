import type { ListDto } from "../../api/schema";
import type { ListActs } from "./acts";
import { Paragraphs } from "./Paragraphs";
import { Pictures } from "./Pictures";
import { Rows } from "./Rows";

/** What a list holds, each sort in its own way. */
export function Entries({
	list,
	base,
	acts,
	names,
}: {
	list: ListDto;
	/** The address of the list, below which its pictures are. */
	base: string;
	acts?: ListActs;
	names?: readonly string[];
}) {
	switch (list.sort) {
		case "Board":
			return <Pictures list={list} base={`${base}/pictures`} acts={acts} />;
		case "Notes":
			return <Paragraphs list={list} acts={acts} />;
		default:
			return <Rows list={list} acts={acts} names={names} />;
	}
}
