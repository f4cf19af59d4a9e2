import type { ReactNode } from "react";
import { Link } from "react-router";
import type { RegisterDto, RegisterGroupDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Empty } from "../../ui/Empty";
import { Cell, Head, Table } from "../../ui/Table";
import type { View } from "./useView";

/** The projects in their groups, each with its count and sums; a heading sorts by its column. */
export function RegisterTable({
	view,
	register,
}: {
	view: View;
	register: RegisterDto;
}) {
	const sort = view.search.get("sort");
	const desc = view.search.get("desc") === "true";
	const heading = (name: string, words: ReactNode, right = false) => (
		<Head
			key={name}
			end={right}
			aria-sort={
				sort === name ? (desc ? "descending" : "ascending") : undefined
			}
			className="align-bottom"
		>
			<Button
				kind="line"
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
			</Button>
		</Head>
	);
	if (register.groups.length === 0)
		return (
			<Empty>
				No project is like this. Choose less narrowly above, or begin with an
				inquiry.
			</Empty>
		);
	return (
		<Table
			caption="Projects"
			head={
				<tr>
					{heading("Title", "Project")}
					{register.columns.map((one) =>
						one.column ? (
							heading(one.column, one.words, one.isAmount)
						) : (
							<Head key={one.words} className="align-bottom">
								{one.words}
							</Head>
						),
					)}
				</tr>
			}
		>
			{register.groups.map((group) => (
				<Group key={group.name} group={group} register={register} view={view} />
			))}
		</Table>
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
			<tr>
				<th
					className="border-b border-ink pt-4 pb-1.5 text-left"
					scope="rowgroup"
				>
					<span className="font-head font-[650]">{group.name}</span>{" "}
					<span className="num font-normal text-soft">{group.count}</span>
				</th>
				{group.sums.map((sum, i) => (
					<Cell key={register.columns[i]?.column} end sum>
						{sum}
					</Cell>
				))}
			</tr>
			{group.rows.map((row) => (
				<tr key={row.id} className="hover:bg-sheet">
					<Cell>
						<Link
							data-walk
							to={`/projects/${row.id}`}
							className="font-semibold"
						>
							{row.title}
						</Link>
					</Cell>
					{row.cells.map((cell, i) => (
						<Cell
							key={register.columns[i]?.column}
							end={register.columns[i]?.isAmount}
						>
							{cell}
						</Cell>
					))}
				</tr>
			))}
			{group.more > 0 && (
				<tr>
					<td colSpan={register.columns.length + 1} className="py-2">
						<Button kind="word" onClick={() => view.set({ most: "5000" })}>
							and {group.more} more
						</Button>
					</td>
				</tr>
			)}
		</tbody>
	);
}
