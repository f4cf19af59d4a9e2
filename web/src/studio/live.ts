import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";

/** Learns of what happened meanwhile, and fetches what is on the screen again. */
export function useLive() {
	const queries = useQueryClient();
	useEffect(() => {
		const source = new EventSource("/api/live");
		source.addEventListener("changed", () =>
			queries.invalidateQueries({
				predicate: (query) =>
					query.queryKey[0] !== "session" && query.queryKey[0] !== "draft",
			}),
		);
		return () => source.close();
	}, [queries]);
}
