import { useQuery } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import { answer, api } from "../../api/client";
import type { BesideShow } from "../../api/schema";

export type Where = {
	/** A day of the week or month that is looked at. */
	day?: string;
	by?: "week" | "month";
	beside?: BesideShow;
};

/** Which days are looked at stands in the address. */
function useWhere() {
	const [search, setSearch] = useSearchParams();
	const go = (to: Where) => {
		const next = new URLSearchParams(search);
		for (const [name, value] of Object.entries(to)) next.set(name, value);
		setSearch(next, { replace: to.beside !== undefined });
	};
	return {
		day: search.get("day") ?? undefined,
		beside: (search.get("beside") ?? undefined) as BesideShow | undefined,
		go,
	};
}

/** The week that the address names; this one where it names none. */
export function useWeek() {
	const { day, beside, go } = useWhere();
	const week = useQuery({
		queryKey: ["over", "week", day, beside],
		queryFn: () =>
			answer(api.GET("/api/week", { params: { query: { day, beside } } })),
		placeholderData: (before) => before,
	});
	return { week, go };
}

export function useMonth() {
	const { day, go } = useWhere();
	const month = useQuery({
		queryKey: ["over", "month", day],
		queryFn: () =>
			answer(api.GET("/api/month", { params: { query: { day } } })),
		placeholderData: (before) => before,
	});
	return { month, go };
}
