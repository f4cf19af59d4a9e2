import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link, useSearchParams } from "react-router";
import { answer, api } from "../../api/client";
import type { SeasonDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Kbd } from "../../ui/Kbd";
import { Select } from "../../ui/Select";
import { ShownPage } from "../../ui/Shown";
import { useKeys } from "../Keys";
import { Over } from "../Over";
import { useNarrow } from "../useNarrow";
import { Legend } from "./Legend";
import { SeasonList } from "./SeasonList";
import { SeasonTable } from "./SeasonTable";

/** Months across: each open project's phases, date and payments, and how full the weeks are. */
export default function SeasonPage() {
	const [search, setSearch] = useSearchParams();
	const narrow = useNarrow();
	const go = (to: Record<string, string>) => {
		const next = new URLSearchParams(search);
		for (const [name, value] of Object.entries(to)) {
			if (value) next.set(name, value);
			else next.delete(name);
		}
		setSearch(next);
	};
	const asked = {
		day: search.get("day") ?? undefined,
		months: Number(search.get("months")) || (narrow ? 3 : undefined),
		kind: Number(search.get("kind")) || undefined,
	};
	const season = useQuery({
		queryKey: ["over", "season", asked],
		queryFn: () => answer(api.GET("/api/season", { params: { query: asked } })),
		placeholderData: (before) => before,
	});
	useEffect(() => {
		document.title = "Season, Gesamt";
	}, []);
	useKeys({
		"[": () => season.data && go({ day: season.data.around.last }),
		"]": () => season.data && go({ day: season.data.around.next }),
	});
	return (
		<ShownPage
			query={season}
			usual={<Link to="/season">Show it from this month</Link>}
		>
			{(data) => (
				<main className="px-5 pb-8 max-md:px-4">
					<div className="flex flex-wrap items-end gap-x-5 gap-y-2 pt-4 pb-2">
						<h1>The season</h1>
						<Starts starts={data.starts} />
						<div className="ml-auto max-md:ml-0">
							<Over />
						</div>
					</div>
					<div className="flex flex-wrap items-end gap-x-5 gap-y-2 pb-2 print:hidden">
						<span className="font-head font-semibold">{data.title}</span>
						<nav
							aria-label="Other months"
							className="flex flex-wrap items-baseline gap-x-3.5 text-soft"
						>
							<Button kind="line" onClick={() => go({ day: data.around.last })}>
								<Kbd>[</Kbd> a month back
							</Button>
							<Button kind="word" onClick={() => go({ day: "" })}>
								from this month
							</Button>
							<Button kind="line" onClick={() => go({ day: data.around.next })}>
								a month on <Kbd>]</Kbd>
							</Button>
						</nav>
						<div className="ml-auto grid grid-cols-[auto_minmax(0,1fr)] gap-2 max-md:ml-0">
							<Select
								label="Months across"
								hidden
								value={data.scale.span}
								onChange={(e) => go({ months: e.target.value })}
							>
								{[3, 6, 12].map((count) => (
									<option key={count} value={count}>
										{count} months
									</option>
								))}
								{![3, 6, 12].includes(data.scale.span) && (
									<option value={data.scale.span}>
										{data.scale.span} months
									</option>
								)}
							</Select>
							<Select
								label="Of what a start would be"
								hidden
								value={data.starts.kind ?? ""}
								onChange={(e) => go({ kind: e.target.value })}
							>
								<option value="">a start of any work</option>
								{data.starts.kinds.map((kind) => (
									<option key={kind.id} value={kind.id}>
										a start of {kind.name}, {kind.hours} h
									</option>
								))}
							</Select>
						</div>
					</div>
					{narrow ? (
						<SeasonList season={data} />
					) : (
						<SeasonTable season={data} />
					)}
					{data.rows.length === 0 && (
						<p className="py-4 text-soft">
							Open projects stand here as soon as something of them has a day:
							the date that matters, a phase, a payment.
						</p>
					)}
					{data.undated > 0 && (
						<p className="under pt-2">
							<Button asChild kind="word">
								<Link to="/register">
									{data.undated} more open project
									{data.undated === 1 ? "" : "s"}
								</Link>
							</Button>{" "}
							{data.undated === 1 ? "has" : "have"} nothing in these months.
						</p>
					)}
					<Legend />
				</main>
			)}
		</ShownPage>
	);
}

function Starts({ starts }: { starts: SeasonDto["starts"] }) {
	return (
		<p className="text-soft">
			{starts.next && (
				<>
					Next start{" "}
					<Link to={`/projects/${starts.nextProject}`}>
						<b className="font-[650] text-ink">{starts.next}</b>
					</Link>
					.{" "}
				</>
			)}
			Next free start <b className="font-[650] text-ink">{starts.free}</b>.
		</p>
	);
}
