import {
	type QueryClient,
	type QueryFilters,
	useQueryClient,
} from "@tanstack/react-query";
import { useEffect } from "react";

/*
 * What is asked of the server goes by what it is of: ["project", id, …] of one
 * project, ["over", …] over all of them; all else is what the studio is set up with.
 */

/** One project changed: what is shown of it, and what looks over all projects. */
function changedProject(queries: QueryClient, project: number) {
	renew(queries, { queryKey: ["project", project] });
	renew(queries, { queryKey: ["over"] });
}

/**
 * Fetches anew what is on the screen. What is on its way for the first time may have been read before the change,
 * and an invalidation would only join it: it is let go first.
 */
async function renew(queries: QueryClient, which: QueryFilters) {
	await queries.cancelQueries({
		...which,
		type: "active",
		predicate: (query) =>
			query.state.data === undefined && (which.predicate?.(query) ?? true),
	});
	await queries.invalidateQueries(which);
}

/** Anything may have changed, but who is signed in, and what is being typed. */
export function changedAll(queries: QueryClient) {
	return renew(queries, {
		predicate: ({ queryKey: [of] }) => of !== "session" && of !== "draft",
	});
}

/** Within so many milliseconds of the page nothing can have been missed. */
const quick = 500;

/** Learns of what happened meanwhile, and fetches what it changed of what is on the screen. */
export function useLive() {
	const queries = useQueryClient();
	useEffect(() => {
		const source = new EventSource("/api/live");
		const begun = Date.now();
		// what happened while nobody listened was told to nobody: after a gap everything is fetched again
		source.addEventListener("open", () => {
			if (Date.now() - begun > quick) changedAll(queries);
		});
		source.addEventListener("changed", ({ data }: MessageEvent<string>) =>
			data === "all"
				? changedAll(queries)
				: changedProject(queries, Number(data)),
		);
		return () => source.close();
	}, [queries]);
}
