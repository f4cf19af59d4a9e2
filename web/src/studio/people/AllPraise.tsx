import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link } from "react-router";
import { answer, api } from "../../api/client";
import type { PraisedProjectDto, PraiseStanding } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Select } from "../../ui/Select";
import { Shown } from "../../ui/Shown";
import { Cell, Head, Table } from "../../ui/Table";
import { useNarrowing, WordsField } from "../narrowing";
import { useNarrow } from "../useNarrow";

const standings: [NonNullable<PraiseStanding>, string][] = [
	["MayBeQuoted", "may be quoted"],
	["MayBeShown", "may be shown"],
	["Asked", "asked, not answered"],
	["Refused", "refused"],
	["Revoked", "taken back"],
	["NotAsked", "kept, not asked"],
];

/** All praise, and what of it may be quoted or shown. */
export default function AllPraise() {
	const { search, set } = useNarrowing();
	const query = {
		words: search.get("words") ?? undefined,
		standing: standings.find(([one]) => one === search.get("standing"))?.[0],
		most: search.get("most") ? Number(search.get("most")) : undefined,
	};
	const praise = useQuery({
		queryKey: ["over", "praise", search.toString()],
		queryFn: () => answer(api.GET("/api/praise", { params: { query } })),
		placeholderData: (before) => before,
	});
	useEffect(() => {
		document.title = "Praise, Gesamt";
	}, []);
	return (
		<main className="px-5 pb-8">
			<div className="flex flex-wrap items-end gap-3 pt-4 pb-3">
				<h1 className="mr-3">Praise</h1>
				<WordsField
					label="Client, project or words"
					value={search.get("words") ?? ""}
					onChange={(words) => set("words", words)}
				/>
				<Select
					label="Standing"
					value={query.standing ?? ""}
					onChange={(e) => set("standing", e.target.value)}
				>
					<option value="">all</option>
					{standings.map(([standing, words]) => (
						<option key={standing} value={standing}>
							{words}
						</option>
					))}
				</Select>
				<div className="ml-auto flex gap-2">
					<Button asChild>
						<Link to="/people">People</Link>
					</Button>
					<Button asChild>
						<a href={`/api/praise.csv?${search}`}>Keep as CSV</a>
					</Button>
				</div>
			</div>
			<Shown query={praise}>
				{(data) => (
					<>
						<Rows rows={data.rows} narrowed={search.size > 0} />
						{data.more > 0 && (
							<Button
								className="mt-3"
								onClick={() =>
									set(
										"most",
										String(data.rows.length + Math.min(400, data.more)),
									)
								}
							>
								Show more: {data.more} besides these
							</Button>
						)}
					</>
				)}
			</Shown>
		</main>
	);
}

function Rows({
	rows,
	narrowed,
}: {
	rows: readonly PraisedProjectDto[];
	narrowed: boolean;
}) {
	const narrow = useNarrow();
	if (rows.length === 0)
		return (
			<p className="max-w-xl text-soft">
				{narrowed
					? "Nothing like this."
					: "No praise yet. Open a letter or a note in a project and press q: what is marked of it is kept here."}
			</p>
		);
	return narrow ? (
		<ul>
			{rows.map((row) => (
				<li key={row.project} className="border-b border-hair py-2">
					<Said row={row} />
					<p className="flex flex-wrap gap-x-3 leading-6">
						<ProjectLink row={row} />
						<ClientLink row={row} />
					</p>
					{row.quote.said && <p className="under">quote: {row.quote.said}</p>}
					{row.show.said && <p className="under">show: {row.show.said}</p>}
				</li>
			))}
		</ul>
	) : (
		<Table
			caption="Praise"
			head={
				<tr>
					<Head>Words</Head>
					<Head>Project</Head>
					<Head>Client</Head>
					<Head>Quote</Head>
					<Head>Show</Head>
				</tr>
			}
		>
			<tbody>
				{rows.map((row) => (
					<tr key={row.project} className="border-b border-hair align-top">
						<Cell>
							<div className="max-w-md min-w-56">
								<Said row={row} />
							</div>
						</Cell>
						<Cell>
							<ProjectLink row={row} />
						</Cell>
						<Cell>
							<ClientLink row={row} />
						</Cell>
						<Cell>{row.quote.said}</Cell>
						<Cell>{row.show.said}</Cell>
					</tr>
				))}
			</tbody>
		</Table>
	);
}

interface OfRow {
	row: PraisedProjectDto;
}

function Said({ row }: OfRow) {
	return (
		<>
			<span className="block break-words whitespace-pre-line">
				{row.words && `“${row.words}”`}
			</span>
			<span className="under block">
				{[row.name, row.state].filter(Boolean).join(", ")}
			</span>
		</>
	);
}

function ProjectLink({ row }: OfRow) {
	return (
		<Button asChild kind="word">
			<Link data-walk to={`/projects/${row.project}?sheet=Praise`}>
				{row.title}
			</Link>
		</Button>
	);
}

function ClientLink({ row }: OfRow) {
	return (
		<Button asChild kind="word">
			<Link to={`/people/${row.person}`}>{row.client}</Link>
		</Button>
	);
}
