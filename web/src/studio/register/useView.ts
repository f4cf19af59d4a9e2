import { useSearchParams } from "react-router";
import type { RegisterColumn } from "../../api/schema";

export type Column = NonNullable<RegisterColumn>;

const usual: Column[] = [
	"Client",
	"Kind",
	"Stage",
	"Turn",
	"Date",
	"Value",
	"Owed",
];

/** The view as its address says it, and a way to change a part of it. */
export function useView() {
	const [search, setSearch] = useSearchParams();
	const chosen = search.getAll("columns") as Column[];
	return {
		search,
		columns: chosen.length > 0 ? chosen : usual,
		set(part: Record<string, string | string[]>) {
			const next = new URLSearchParams(search);
			for (const [name, value] of Object.entries(part)) {
				next.delete(name);
				for (const one of [value].flat()) if (one) next.append(name, one);
			}
			setSearch(next, { replace: true });
		},
		show: (query: string) => setSearch(new URLSearchParams(query)),
	};
}

export type View = ReturnType<typeof useView>;
