import { useQuery } from "@tanstack/react-query";
import { type FormEvent, type ReactNode, useEffect, useState } from "react";
import { Link, useSearchParams } from "react-router";
import type {
	RegisterColumn,
	RegisterDto,
	RegisterGroup,
	RegisterGroupDto,
	SavedViewDto,
	Stage,
} from "../api/schema";
import { Alert, Select, TextField } from "../ui/Fields";
import { get, post } from "../ui/http";
import { Shown } from "../ui/Shown";
import { useAct } from "./useAct";

type Column = NonNullable<RegisterColumn>;

const columns: { column: Column; words: string }[] = [
	{ column: "Client", words: "Client" },
	{ column: "Kind", words: "Kind" },
	{ column: "Stage", words: "Stage" },
	{ column: "Turn", words: "Turn" },
	{ column: "Reason", words: "Reason" },
	{ column: "Date", words: "Date" },
	{ column: "Source", words: "Source" },
	{ column: "Value", words: "Value, net" },
	{ column: "Agreed", words: "Agreed, with tax" },
	{ column: "Paid", words: "Paid" },
	{ column: "Owed", words: "Owed" },
	{ column: "Inquiry", words: "Inquiry" },
	{ column: "Booked", words: "Booked on" },
	{ column: "Over", words: "Finished on" },
];
const usual: Column[] = [
	"Client",
	"Kind",
	"Stage",
	"Turn",
	"Date",
	"Value",
	"Owed",
];
const groups: { group: NonNullable<RegisterGroup>; words: string }[] = [
	{ group: "Standing", words: "how it stands" },
	{ group: "Month", words: "month of inquiry" },
	{ group: "Year", words: "year of inquiry" },
	{ group: "BookedMonth", words: "month of booking" },
	{ group: "Kind", words: "kind" },
	{ group: "Source", words: "source" },
	{ group: "Client", words: "client" },
	{ group: "Stage", words: "stage" },
	{ group: "None", words: "nothing" },
];
const stages: Stage[] = [
	"Lead",
	"Proposal",
	"Contract",
	"Payment",
	"Delivery",
	"Finished",
];

/** The view as its address says it, and a way to change a part of it. */
function useView() {
	const [search, setSearch] = useSearchParams();
	const chosen = search.getAll("columns") as Column[];
	return {
		search,
		columns: chosen.length > 0 ? chosen : usual,
		set(part: Record<string, string | string[]>) {
			const next = new URLSearchParams(search);
			for (const [name, value] of Object.entries(part)) {
				next.delete(name);
				for (const one of [value].flat()) if (one) next.append(name, one);
			}
			setSearch(next, { replace: true });
		},
		show: (query: string) => setSearch(new URLSearchParams(query)),
	};
}
type View = ReturnType<typeof useView>;

/** Every project in a table: columns to choose, sorted, narrowed, put together and added up. */
export default function Register() {
	const view = useView();
	const register = useQuery({
		queryKey: ["register", view.search.toString()],
		queryFn: () => get<RegisterDto>(`/api/register?${view.search}`),
		placeholderData: (before) => before,
	});
	useEffect(() => {
		document.title = "Register, Gesamt";
	}, []);
	return (
		<main className="px-5 pb-8">
			<div className="flex flex-wrap items-end gap-x-5 gap-y-2 pt-4 pb-3">
				<h1>Register</h1>
				<p className="text-soft">{register.data?.summary}</p>
				<div className="ml-auto flex gap-2">
					<SavedViews view={view} />
					<a className="btn" href={`/api/register.csv?${view.search}`} download>
						Save as CSV
					</a>
				</div>
			</div>
			<Shown query={register}>
				{(data) => (
					<>
						<Narrowing view={view} register={data} />
						<Table view={view} register={data} />
					</>
				)}
			</Shown>
		</main>
	);
}

function Narrowing({ view, register }: { view: View; register: RegisterDto }) {
	const value = (name: string) => view.search.get(name) ?? "";
	const [words, setWords] = useState(value("words"));
	const { set } = view;
	const present = value("words");
	useEffect(() => {
		if (words === present) return;
		const timer = setTimeout(() => set({ words }), 250);
		return () => clearTimeout(timer);
	}, [words, present, set]);
	const choose = (
		label: string,
		name: string,
		all: string,
		options: readonly (string | number)[],
	) => (
		<Select
			label={label}
			value={value(name)}
			onChange={(e) => set({ [name]: e.target.value })}
		>
			<option value="">{all}</option>
			{options.map((option) => (
				<option key={option} value={option}>
					{option}
				</option>
			))}
		</Select>
	);
	return (
		<div className="flex flex-wrap items-end gap-3 border-y border-hair py-3">
			<div className="w-44">
				<TextField
					label="Project or client"
					type="search"
					value={words}
					onChange={(e) => setWords(e.target.value)}
				/>
			</div>
			{choose("Kind", "kind", "all kinds", register.kinds)}
			{choose("Source", "source", "all sources", register.sources)}
			{choose("Stage", "stage", "all stages", stages)}
			{choose("Year", "year", "all years", register.years)}
			<Select
				label="Put together by"
				value={value("group") || "Standing"}
				onChange={(e) => set({ group: e.target.value })}
			>
				{groups.map(({ group, words: name }) => (
					<option key={group} value={group}>
						{name}
					</option>
				))}
			</Select>
			<details className="relative">
				<summary className="btn list-none">
					Columns, {view.columns.length}
				</summary>
				<fieldset className="absolute right-0 z-10 mt-1 grid w-56 gap-1 border-[1.5px] border-ink bg-sheet p-3">
					<legend className="sr-only">Columns</legend>
					{columns.map(({ column, words: name }) => (
						<label key={column} className="flex gap-2">
							<input
								type="checkbox"
								className="mt-1 size-4 accent-(--ink)"
								checked={view.columns.includes(column)}
								onChange={(e) =>
									set({
										columns: columns
											.map((one) => one.column)
											.filter((one) =>
												one === column
													? e.target.checked
													: view.columns.includes(one),
											),
									})
								}
							/>
							{name}
						</label>
					))}
					{register.details.map((detail) => (
						<label key={detail} className="flex gap-2">
							<input
								type="checkbox"
								className="mt-1 size-4 accent-(--ink)"
								checked={view.search.getAll("details").includes(detail)}
								onChange={(e) =>
									set({
										details: register.details.filter((one) =>
											one === detail
												? e.target.checked
												: view.search.getAll("details").includes(one),
										),
									})
								}
							/>
							{detail}
						</label>
					))}
				</fieldset>
			</details>
		</div>
	);
}

function Table({ view, register }: { view: View; register: RegisterDto }) {
	const sort = view.search.get("sort");
	const desc = view.search.get("desc") === "true";
	const heading = (name: string, words: ReactNode, right = false) => (
		<th
			key={name}
			aria-sort={
				sort === name ? (desc ? "descending" : "ascending") : undefined
			}
			className={`py-1.5 pr-4 align-bottom ${right ? "text-right" : "text-left"}`}
		>
			<button
				type="button"
				className="font-semibold"
				onClick={() =>
					view.set({
						sort: name,
						desc: sort === name ? String(!desc) : "false",
					})
				}
			>
				{words}
				{sort === name && (
					<span aria-hidden="true" className="pl-1 text-soft">
						{desc ? "↓" : "↑"}
					</span>
				)}
			</button>
		</th>
	);
	if (register.groups.length === 0)
		return (
			<p className="py-6 text-soft">
				No project is like this. Choose less narrowly above, or begin with an
				inquiry.
			</p>
		);
	return (
		<div className="overflow-x-auto">
			<table className="w-full text-[14.3px]">
				<thead className="text-small">
					<tr className="border-b-[1.5px] border-ink">
						{heading("Title", "Project")}
						{register.columns.map((one) =>
							one.column ? (
								heading(one.column, one.words, one.isAmount)
							) : (
								<th
									key={one.words}
									className="py-1.5 pr-4 text-left align-bottom font-semibold"
								>
									{one.words}
								</th>
							),
						)}
					</tr>
				</thead>
				{register.groups.map((group) => (
					<Group
						key={group.name}
						group={group}
						register={register}
						view={view}
					/>
				))}
			</table>
		</div>
	);
}

function Group({
	group,
	register,
	view,
}: {
	group: RegisterGroupDto;
	register: RegisterDto;
	view: View;
}) {
	return (
		<tbody>
			<tr className="border-b border-ink">
				<th className="pt-4 pb-1 text-left" scope="rowgroup">
					<span className="font-head font-[650]">{group.name}</span>{" "}
					<span className="num font-normal text-soft">{group.count}</span>
				</th>
				{group.sums.map((sum, i) => (
					<td
						key={register.columns[i]?.column}
						className="num pt-4 pr-4 pb-1 text-right font-[650] whitespace-nowrap"
					>
						{sum}
					</td>
				))}
			</tr>
			{group.rows.map((row) => (
				<tr key={row.id} className="border-b border-hair hover:bg-sheet">
					<td className="py-1 pr-4">
						<Link
							data-walk
							to={`/projects/${row.id}`}
							className="font-semibold"
						>
							{row.title}
						</Link>
					</td>
					{row.cells.map((cell, i) => (
						<td
							key={register.columns[i]?.column}
							className={`py-1 pr-4 ${register.columns[i]?.isAmount ? "num text-right whitespace-nowrap" : ""}`}
						>
							{cell}
						</td>
					))}
				</tr>
			))}
			{group.more > 0 && (
				<tr>
					<td colSpan={register.columns.length + 1} className="py-2">
						<button
							type="button"
							className="link"
							onClick={() => view.set({ most: "5000" })}
						>
							and {group.more} more
						</button>
					</td>
				</tr>
			)}
		</tbody>
	);
}

function SavedViews({ view }: { view: View }) {
	const views = useQuery({
		queryKey: ["register-views"],
		queryFn: () => get<SavedViewDto[]>("/api/register/views"),
	});
	const [name, setName] = useState("");
	const act = useAct();
	async function keep(event: FormEvent) {
		event.preventDefault();
		const query = view.search.toString();
		if (await act.run(() => post("/api/register/views", { name, query })))
			setName("");
	}
	return (
		<details className="relative">
			<summary className="btn list-none">
				Views, {views.data?.length ?? 0}
			</summary>
			<div className="absolute right-0 z-10 mt-1 grid w-72 gap-2 border-[1.5px] border-ink bg-sheet p-3">
				{views.data?.map((one) => (
					<div key={one.id} className="flex gap-3">
						<button
							type="button"
							className="link text-left"
							onClick={() => view.show(one.query)}
						>
							{one.name}
						</button>
						<button
							type="button"
							className="ml-auto text-small text-soft"
							onClick={() =>
								act.run(() => post(`/api/register/views/${one.id}/forget`))
							}
						>
							forget<span className="sr-only"> {one.name}</span>
						</button>
					</div>
				))}
				<form onSubmit={keep} className="grid gap-2 border-t border-hair pt-2">
					<TextField
						label="Keep this view as"
						value={name}
						wrong={act.refusal?.of("name")}
						onChange={(e) => setName(e.target.value)}
					/>
					{act.refusal && !act.refusal.of("name") && (
						<Alert>{act.refusal.message}</Alert>
					)}
					<button type="submit" className="btn" disabled={act.busy}>
						Keep the view
					</button>
				</form>
			</div>
		</details>
	);
}
