import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useSearchParams } from "react-router";
import type { PeopleDto, PersonSort, ReadCardsDto } from "../../api/schema";
import { Alert, Select, TextField } from "../../ui/Fields";
import { get, post } from "../../ui/http";
import { Shown } from "../../ui/Shown";
import { useAct } from "../useAct";
import { EditPerson, nobody } from "./EditPerson";

export const sorts: Record<PersonSort, string> = {
	Client: "client",
	Colleague: "colleague",
	Supplier: "supplier",
	Venue: "venue",
	Partner: "partner",
};

/** Everybody the studio knows, with what was last heard of them. */
export default function People() {
	const [search, setSearch] = useSearchParams();
	const [adding, setAdding] = useState(false);
	const people = useQuery({
		queryKey: ["people", search.toString()],
		queryFn: () => get<PeopleDto>(`/api/people?${search}`),
		placeholderData: (before) => before,
	});
	useEffect(() => {
		document.title = "People, Gesamt";
	}, []);
	const set = (name: string, value: string) => {
		const next = new URLSearchParams(search);
		if (value) next.set(name, value);
		else next.delete(name);
		setSearch(next, { replace: true });
	};
	return (
		<main className="px-5 pb-8">
			<div className="flex flex-wrap items-end gap-3 pt-4 pb-3">
				<h1 className="mr-3">People</h1>
				<TextField
					label="Name or address"
					value={search.get("words") ?? ""}
					onChange={(e) => set("words", e.target.value)}
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
				<label className="flex gap-2 pb-1.5">
					<input
						type="checkbox"
						className="mt-1 size-4 accent-(--ink)"
						checked={search.get("longestFirst") === "true"}
						onChange={(e) =>
							set("longestFirst", e.target.checked ? "true" : "")
						}
					/>
					longest without contact first
				</label>
				<div className="ml-auto flex flex-wrap gap-2">
					<button
						type="button"
						className="btn btn-go"
						onClick={() => setAdding(true)}
					>
						Add somebody
					</button>
					<TakeCards />
					<a className="btn" href="/api/people.vcf">
						vCards
					</a>
					<a className="btn" href={`/api/people.csv?${search}`}>
						CSV
					</a>
					<Link className="btn" to="/import">
						Take over a table
					</Link>
				</div>
			</div>
			{adding && (
				<EditPerson details={nobody} onClose={() => setAdding(false)} />
			)}
			<Shown query={people}>{(data) => <Table people={data} />}</Shown>
		</main>
	);
}

function Table({ people }: { people: PeopleDto }) {
	if (people.total === 0)
		return (
			<p className="py-3 text-soft">
				Nobody of that kind yet. Every inquiry brings its client with it; add
				colleagues, suppliers and venues yourself.
			</p>
		);
	return (
		<div className="overflow-x-auto">
			<table className="w-full text-[14.3px]">
				<thead className="rule text-left font-head text-[13px]">
					<tr>
						{[
							"Name",
							"Reach",
							"Projects",
							"Agreed, net",
							"Last contact",
							"Labels",
						].map((head) => (
							<th
								key={head}
								scope="col"
								className={`py-1 pr-4 font-semibold ${head === "Agreed, net" ? "text-right" : ""}`}
							>
								{head}
							</th>
						))}
					</tr>
				</thead>
				<tbody>
					{people.rows.map((one) => (
						<tr key={one.id} className="border-b border-hair align-baseline">
							<td className="py-1.5 pr-4">
								<Link data-walk className="font-[650]" to={`/people/${one.id}`}>
									{one.name}
								</Link>
								<span className="under">
									{one.organisation && ` ${one.organisation}`}
									{one.sort !== "Client" && ` ${sorts[one.sort]}`}
								</span>
							</td>
							<td className="pr-4 break-all text-soft">{one.reach}</td>
							<td className="num pr-4">
								{one.projects > 0 &&
									`${one.projects}${one.open > 0 ? `, ${one.open} open` : ""}`}
							</td>
							<td className="num pr-4 text-right">{one.agreed}</td>
							<td className="pr-4 whitespace-nowrap">
								{one.lastContact}{" "}
								{one.daysSince != null && (
									<span className="text-soft">{ago(one.daysSince)}</span>
								)}
							</td>
							<td className="text-soft">{one.labels.join(", ")}</td>
						</tr>
					))}
				</tbody>
			</table>
			<p className="under pt-2">
				{people.total} {people.total === 1 ? "person" : "people"}
				{people.more > 0 && `, ${people.more} more than are shown`}
			</p>
		</div>
	);
}

export const ago = (days: number) =>
	days === 0 ? "today" : `${days} day${days === 1 ? "" : "s"} ago`;

/** People out of a vCard file. */
function TakeCards() {
	const act = useAct();
	const [done, setDone] = useState<ReadCardsDto>();
	return (
		<>
			<label className="btn">
				Take vCards
				<input
					type="file"
					accept=".vcf,text/vcard"
					aria-label="Take vCards"
					className="sr-only"
					onChange={async (e) => {
						const file = e.target.files?.[0];
						if (!file) return;
						const text = await file.text();
						await act.run(async () =>
							setDone(await post<ReadCardsDto>("/api/people/vcards", { text })),
						);
					}}
				/>
			</label>
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
			{done && (
				<p role="status" className="w-full font-[650]">
					{done.made} taken over
					{done.known > 0 && `, ${done.known} known already`}
					{done.unreachable.length > 0 &&
						`, left out for want of any address: ${done.unreachable.join(", ")}`}
				</p>
			)}
		</>
	);
}
