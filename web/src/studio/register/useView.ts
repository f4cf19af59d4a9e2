import { useSearchParams } from "react-router";
import type {
	RegisterColumn,
	RegisterGroup,
	RegisterOnly,
	RegisterStanding,
	RunState,
	Stage,
} from "../../api/schema";

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
		/** The same for the server. */
		asked: {
			columns: chosen,
			details: search.getAll("details"),
			group: (search.get("group") ?? undefined) as RegisterGroup | undefined,
			sort: search.get("sort") ?? undefined,
			desc: search.get("desc") === "true" || undefined,
			words: search.get("words") ?? undefined,
			kind: search.get("kind") ?? undefined,
			source: search.get("source") ?? undefined,
			stage: (search.get("stage") ?? undefined) as Stage | undefined,
			year: Number(search.get("year")) || undefined,
			standing: (search.get("standing") ?? undefined) as
				| RegisterStanding
				| undefined,
			routine: search.get("routine") ?? undefined,
			run: (search.get("run") ?? undefined) as RunState | undefined,
			only: (search.get("only") ?? undefined) as RegisterOnly | undefined,
			most: Number(search.get("most")) || undefined,
		},
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
