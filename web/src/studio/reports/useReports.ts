import { useQuery } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import { answer, api } from "../../api/client";
import type { EndReason, Gate, ReportBy, ReportOf } from "../../api/schema";

/** The figure that was pressed last. */
export const pressed: { element?: HTMLElement; name?: string } = {};

/** Which inquiries are looked at, and which figure of them is opened: it stands in the address. */
export function useReports() {
	const [search, setSearch] = useSearchParams();
	const get = (name: string) => search.get(name) ?? undefined;
	const asked = {
		year: get("year"),
		from: get("from"),
		until: get("until"),
		kind: Number(get("kind")) || undefined,
		source: get("source"),
		campaign: get("campaign"),
	};
	const by = (get("by") ?? "Source") as ReportBy;
	const rows = Number(get("rows")) || undefined;
	const reports = useQuery({
		queryKey: ["over", "reports", asked, by, rows],
		queryFn: () =>
			answer(
				api.GET("/api/reports", {
					params: { query: { ...asked, by, most: rows } },
				}),
			),
		placeholderData: (before) => before,
	});
	const go = (to: Record<string, string | undefined>) => {
		const next = new URLSearchParams(search);
		for (const [name, value] of Object.entries(to)) {
			if (value === undefined) next.delete(name);
			else next.set(name, value);
		}
		setSearch(next);
	};
	const key = get("key");
	const pick = {
		of: get("of") as NonNullable<ReportOf> | undefined,
		gate: get("gate") as Gate | undefined,
		reason: get("reason") as EndReason | undefined,
		at: get("at"),
		by: key === undefined ? undefined : by,
		key,
		chases: get("chases") === undefined ? undefined : Number(get("chases")),
		most: Number(get("most")) || undefined,
	};
	return {
		reports,
		asked,
		by,
		/** The address of what was brought, as a table. */
		table: `/api/reports/brought.csv?${new URLSearchParams(
			Object.entries({ ...asked, by }).flatMap(([name, value]) =>
				value === undefined ? [] : [[name, `${value}`]],
			),
		)}`,
		/** The figure that is opened. */
		pick,
		go,
		/** Opens one figure, and no other any more. */
		open: (figure: Figure) => {
			const element = document.activeElement;
			pressed.element = element instanceof HTMLElement ? element : undefined;
			pressed.name = element?.getAttribute("aria-label") ?? undefined;
			go({ ...nothing, ...figure });
		},
		close: () => go(nothing),
	};
}

export type Reports = ReturnType<typeof useReports>;

/** A figure, as it stands in the address. */
export type Figure = { of: NonNullable<ReportOf> } & Partial<
	Record<"gate" | "reason" | "at" | "key" | "chases", string>
>;

const nothing = {
	of: undefined,
	gate: undefined,
	reason: undefined,
	at: undefined,
	key: undefined,
	chases: undefined,
	most: undefined,
};
