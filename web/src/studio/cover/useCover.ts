import { type QueryClient, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useState } from "react";
import { api, lookThrough } from "../../api/client";
import type { Refusal } from "../../api/refusal";
import { useKeys } from "../Keys";
import { maskAll, masked } from "./mask";

const kept = "covered";

/** Kept for this tab: a page that is loaded again stays covered. */
const wasCovered = () => {
	try {
		return sessionStorage.getItem(kept) === "yes";
	} catch {
		return false;
	}
};

/** What is hidden; read anew after each change, so that who comes while others look is hidden too. */
async function names(queries: QueryClient): Promise<ReadonlySet<string>> {
	try {
		return await queries.fetchQuery({
			queryKey: ["over", "cover"],
			staleTime: Number.POSITIVE_INFINITY,
			// not by `answer`: the names themselves are not masked
			queryFn: async () => new Set((await api.GET("/api/cover")).data),
		});
	} catch (error) {
		// who is signed out is told nothing that is to be hidden; else nothing is shown before it is known what is
		if ((error as Refusal).status === 401) return new Set();
		throw error;
	}
}

/** From here on every answer is masked before a page sees it. */
const cover = (queries: QueryClient) =>
	lookThrough(async (data) => maskAll(data, await names(queries)), masked);

/** Whether names and amounts are hidden while others look at the screen; one key covers it and shows it again. */
export function useCover() {
	const queries = useQueryClient();
	const [on, setOn] = useState(() => {
		const was = wasCovered();
		if (was) cover(queries);
		return was;
	});
	const turn = useCallback(() => {
		const next = !on;
		try {
			sessionStorage.setItem(kept, next ? "yes" : "no");
		} catch {
			// a browser that keeps nothing shows the next page as it is
		}
		if (next) cover(queries);
		else lookThrough(undefined, masked);
		setOn(next);
		// nothing that was read before stays on the screen
		void queries.resetQueries({
			predicate: ({ queryKey: [of] }) => of !== "session",
		});
	}, [on, queries]);
	useKeys({ v: turn });
	useEffect(() => {
		document.documentElement.classList.toggle("covered", on);
		document.addEventListener("gesamt:cover", turn);
		return () => document.removeEventListener("gesamt:cover", turn);
	}, [on, turn]);
	return { on, turn };
}

/** Hides names and amounts, or shows them again. */
export const askCover = () => document.dispatchEvent(new Event("gesamt:cover"));
