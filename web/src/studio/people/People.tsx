import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import { answer, api } from "../../api/client";
import type { PersonSort } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Empty } from "../../ui/Empty";
import { Select } from "../../ui/Select";
import { Shown } from "../../ui/Shown";
import { Tick } from "../../ui/Tick";
import { useNarrowing, WordsField } from "../narrowing";
import { useNarrow } from "../useNarrow";
import { EditPerson, nobody } from "./EditPerson";
import { PeopleList, PeopleTable, sorts } from "./PeopleTable";
import { TakeCards } from "./TakeCards";

/** Who is asked for, as the page's own address says it. */
const asked = (search: URLSearchParams) => ({
	words: search.get("words") ?? undefined,
	sort: (search.get("sort") ?? undefined) as PersonSort | undefined,
	label: search.get("label") ?? undefined,
	longestFirst: search.get("longestFirst") === "true" || undefined,
});

/** Everybody the studio knows, with what was last heard of them. */
export default function People() {
	const { search, set } = useNarrowing();
	const narrow = useNarrow();
	const [adding, setAdding] = useState(false);
	const people = useQuery({
		queryKey: ["over", "people", search.toString()],
		queryFn: () =>
			answer(
				api.GET("/api/people", {
					params: { query: asked(search) },
				}),
			),
		placeholderData: (before) => before,
	});
	useEffect(() => {
		document.title = "People, Gesamt";
	}, []);
	return (
		<main className="px-5 pb-8 max-md:px-4">
			<div className="flex flex-wrap items-end gap-3 pt-4 pb-3">
				<h1 className="mr-3">People</h1>
				<WordsField
					label="Name or address"
					value={search.get("words") ?? ""}
					onChange={(words) => set("words", words)}
				/>
				<Select
					label="Who"
					value={search.get("sort") ?? ""}
					onChange={(e) => set("sort", e.target.value)}
				>
					<option value="">everybody</option>
					{Object.entries(sorts).map(([sort, words]) => (
						<option key={sort} value={sort}>
							{words}s
						</option>
					))}
				</Select>
				{people.data && people.data.labels.length > 0 && (
					<Select
						label="Label"
						value={search.get("label") ?? ""}
						onChange={(e) => set("label", e.target.value)}
					>
						<option value="">any</option>
						{people.data.labels.map((label) => (
							<option key={label}>{label}</option>
						))}
					</Select>
				)}
				<Tick
					label="longest without contact first"
					className="pb-1.5"
					checked={search.get("longestFirst") === "true"}
					onChange={(checked) => set("longestFirst", checked ? "true" : "")}
				/>
				<div className="ml-auto flex flex-wrap gap-2 max-md:ml-0">
					<Button asChild>
						<Link to="/money/invoices">Invoices</Link>
					</Button>
					<Button asChild>
						<Link to="/people/papers">Signed papers</Link>
					</Button>
					<Button asChild>
						<Link to="/people/praise">Praise</Link>
					</Button>
					<Button kind="go" onClick={() => setAdding(true)}>
						Add somebody
					</Button>
				</div>
			</div>
			{adding && (
				<EditPerson details={nobody} onClose={() => setAdding(false)} />
			)}
			<Shown query={people}>
				{(data) =>
					data.total === 0 ? (
						<Empty>
							Nobody of that kind yet. Every inquiry brings its client with it;
							add colleagues, suppliers and venues yourself, or take them over
							below.
						</Empty>
					) : (
						<>
							{narrow ? (
								<PeopleList people={data} />
							) : (
								<PeopleTable people={data} />
							)}
							<p className="under pt-2">
								{data.total} {data.total === 1 ? "person" : "people"}
								{data.more > 0 && `, ${data.more} more than are shown`}
							</p>
						</>
					)
				}
			</Shown>
			<InAndOut search={search} />
		</main>
	);
}

/** What is done now and then: everybody out as files, and people or projects kept elsewhere in. */
function InAndOut({ search }: { search: URLSearchParams }) {
	return (
		<div className="flex flex-wrap items-baseline gap-2 pt-5">
			<Button asChild>
				<a href={`/api/people.csv?${search}`}>As a table (CSV)</a>
			</Button>
			<Button asChild>
				<a href="/api/people.vcf">As vCards</a>
			</Button>
			<TakeCards />
			<Button asChild>
				<Link to="/import">Take over a table of projects</Link>
			</Button>
		</div>
	);
}
