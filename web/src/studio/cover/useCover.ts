import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useState } from "react";
import { answer, api, lookThrough } from "../../api/client";
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

/** From here on every answer is masked before a page sees it; those that come earlier wait for the names. */
function cover() {
	// asked before the answers are looked through: the names themselves are not masked
	const names = answer(api.GET("/api/cover")).then((words) => new Set(words));
	lookThrough(async (data) => maskAll(data, await names), masked);
}

/** Whether names and amounts are hidden while others look at the screen; one key covers it and shows it again. */
export function useCover() {
	const queries = useQueryClient();
	const [on, setOn] = useState(() => {
		// only who is signed in may ask for the names: before, nothing is looked through
		const was = wasCovered();
		if (was) cover();
		return was;
	});
	const turn = useCallback(() => {
		const next = !on;
		try {
			sessionStorage.setItem(kept, next ? "yes" : "no");
		} catch {
			// a browser that keeps nothing shows the next page as it is
		}
		if (next) cover();
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
