import { useQuery } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import { answer, api } from "../../api/client";
import type { MoneyAs } from "../../api/schema";
import type { Show } from "./shows";

/** Which days are looked at, how, and what of them is opened: it stands in the address. */
export function useMoney() {
	const [search, setSearch] = useSearchParams();
	const get = (name: string) => search.get(name) ?? undefined;
	const asked = {
		year: get("year"),
		from: get("from"),
		until: get("until"),
		as: get("as") as NonNullable<MoneyAs> | undefined,
		currency: get("currency"),
	};
	const money = useQuery({
		queryKey: ["over", "money", asked],
		queryFn: () => answer(api.GET("/api/money", { params: { query: asked } })),
		placeholderData: (before) => before,
	});
	const go = (to: Record<string, string | undefined>) => {
		const next = new URLSearchParams(search);
		for (const [name, value] of Object.entries(to)) {
			if (value) next.set(name, value);
			else next.delete(name);
		}
		setSearch(next);
	};
	return {
		money,
		asked,
		go,
		/** The first day of the column that is opened. */
		at: get("at"),
		/** All the days are opened, not one column of them. */
		all: get("all") !== undefined,
		show: get("show") as Show | undefined,
		undated: get("undated") !== undefined,
		most: Number(get("most")) || undefined,
	};
}

export type Money = ReturnType<typeof useMoney>;
