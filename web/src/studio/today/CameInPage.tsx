import { useInfiniteQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link, useSearchParams } from "react-router";
import { answer, api } from "../../api/client";
import type { CameInSort } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Empty } from "../../ui/Empty";
import { Select } from "../../ui/Select";

const sorts: Record<NonNullable<CameInSort>, string> = {
	Inquiries: "inquiries and forms",
	Letters: "letters",
	Papers: "proposals, contracts, briefs",
	Money: "money",
	Work: "drafts, files, lists",
	Meetings: "meetings",
};

/** What clients did, day by day. */
export default function CameInPage() {
	const [search, setSearch] = useSearchParams();
	const sort = (search.get("sort") ?? undefined) as CameInSort | undefined;
	const days = useInfiniteQuery({
		queryKey: ["over", "came-in", sort],
		queryFn: ({ pageParam }) =>
			answer(
				api.GET("/api/came-in", {
					params: { query: { past: pageParam, sort } },
				}),
			),
		initialPageParam: 0,
		getNextPageParam: (page) => page.next ?? undefined,
	});
	useEffect(() => {
		document.title = "Came in, Gesamt";
	}, []);
	const all = days.data?.pages.flatMap((page) => page.days) ?? [];
	return (
		<main className="max-w-3xl px-5 pb-8 max-md:px-4">
			<div className="flex flex-wrap items-end gap-x-5 gap-y-2 pt-4 pb-3">
				<h1>Came in</h1>
				<p className="text-soft">What clients did, the last first.</p>
				<div className="ml-auto max-md:ml-0">
					<Select
						label="Show"
						hidden
						value={sort ?? ""}
						onChange={(e) =>
							setSearch(e.target.value ? { sort: e.target.value } : {}, {
								replace: true,
							})
						}
					>
						<option value="">all of it</option>
						{Object.entries(sorts).map(([one, words]) => (
							<option key={one} value={one}>
								{words}
							</option>
						))}
					</Select>
				</div>
			</div>
			{days.error && <p role="alert">{days.error.message}</p>}
			{all.map((day, at) => (
				<section key={`${day.day}${at}`} aria-label={day.day}>
					{all[at - 1]?.day !== day.day && (
						<h2 className="rule pt-4 pb-1.5">{day.day}</h2>
					)}
					{day.entries.map((one, i) => (
						<Link
							key={`${one.words}${i}`}
							to={`/projects/${one.project}`}
							data-walk
							className="flex gap-3 border-b border-hair py-2"
						>
							<span className={one.new ? "font-[650]" : ""}>
								{one.words}
								{one.new && <span className="sr-only"> (new)</span>}
							</span>
							<time className="ml-auto whitespace-nowrap text-soft">
								{one.when}
							</time>
						</Link>
					))}
				</section>
			))}
			{days.data && all.length === 0 && (
				<Empty>
					{sort
						? "Nothing of this came in."
						: "What clients do stands here: inquiries, letters, choices, payments."}
				</Empty>
			)}
			{days.hasNextPage && (
				<Button
					className="mt-4"
					disabled={days.isFetchingNextPage}
					onClick={() => days.fetchNextPage()}
				>
					Earlier days
				</Button>
			)}
		</main>
	);
}
