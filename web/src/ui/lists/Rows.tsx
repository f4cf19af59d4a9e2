import { memo, useDeferredValue, useId, useState } from "react";
import { newKey } from "../../api/client";
import type { ListColumnDto, ListDto, ListEntryDto } from "../../api/schema";
import { Button } from "../Button";
import { Cell, Head, Table } from "../Table";
import { TextField } from "../TextField";
import { Tick } from "../Tick";
import { type ListActs, nameOf } from "./acts";
import { RowForm } from "./RowForm";

const manyRows = 12;

const isFigure = (column: ListColumnDto) =>
	column.sort === "Number" || column.sort === "Amount";

/** The rows of a list: read in a table, written one at a time in its place. */
export function Rows({
	list,
	acts,
	names = [],
}: {
	list: ListDto;
	/** Left out where it is only read. */
	acts?: ListActs;
	/** Offered where a person is written. */
	names?: readonly string[];
}) {
	const [open, setOpen] = useState<string>();
	const [fresh, setFresh] = useState(newKey);
	const [find, setFind] = useState("");
	const people = useId();
	// typing goes first; a long list follows
	const asked = useDeferredValue(find.trim().toLowerCase());
	const shown = list.entries.filter((entry) =>
		entry.cells.some((cell) => cell.words.toLowerCase().includes(asked)),
	);
	const add = acts && list.edits;
	return (
		<div className="grid gap-3">
			{list.entries.length > manyRows && (
				<div className="flex flex-wrap items-end gap-3">
					<TextField
						label="Find in it"
						type="search"
						value={find}
						onChange={(e) => setFind(e.target.value)}
					/>
					{asked && (
						<p role="status" className="pb-1.5 text-soft">
							{shown.length} of {list.entries.length} rows
						</p>
					)}
				</div>
			)}
			<datalist id={people}>
				{names.map((name) => (
					<option key={name} value={name} />
				))}
			</datalist>
			<Table
				caption={list.name}
				head={
					<tr className="max-md:sr-only">
						{list.columns.map((column) => (
							<Head key={column.key} end={isFigure(column)}>
								{column.name}
							</Head>
						))}
						{add && (
							<Head>
								<span className="sr-only">To do</span>
							</Head>
						)}
					</tr>
				}
			>
				<tbody>
					{shown.map((entry) =>
						entry.key === open ? (
							<tr key={entry.key} className="max-md:block">
								<td
									colSpan={list.columns.length + 1}
									className="panel p-3 max-md:block"
								>
									<RowForm
										key={entry.edition}
										list={list}
										entry={entry}
										acts={acts}
										people={people}
										onClose={() => setOpen(undefined)}
									/>
								</td>
							</tr>
						) : (
							<Row
								key={entry.key}
								list={list}
								entry={entry}
								acts={acts}
								onOpen={setOpen}
							/>
						),
					)}
				</tbody>
				<Sums list={list} />
			</Table>
			{list.entries.length === 0 && (
				<p className="text-soft">Nothing is on it yet.</p>
			)}
			{add &&
				(open === fresh ? (
					<section aria-label="A new row" className="panel p-3">
						<RowForm
							key={fresh}
							list={list}
							newKey={fresh}
							acts={acts}
							people={people}
							onClose={() => setOpen(undefined)}
							onKept={() => {
								// the next one can be typed at once
								const next = newKey();
								setFresh(next);
								setOpen(next);
							}}
						/>
					</section>
				) : (
					<div>
						<Button onClick={() => setOpen(fresh)}>Add a row</Button>
					</div>
				))}
		</div>
	);
}

const Row = memo(function Row({
	list,
	entry,
	acts,
	onOpen,
}: {
	list: ListDto;
	entry: ListEntryDto;
	acts?: ListActs;
	onOpen: (key: string) => void;
}) {
	return (
		<tr
			className={`max-md:block max-md:border-b max-md:border-hair max-md:py-2 ${entry.mark ? "shadow-[inset_3px_0_0_var(--ink)]" : ""}`}
		>
			{list.columns.map((column, at) => (
				<Cell
					key={column.key}
					end={isFigure(column)}
					className={`max-md:block max-md:border-0 max-md:py-0.5 max-md:text-left max-md:first:font-[650] ${entry.struck ? "text-soft line-through" : ""}`}
				>
					{at > 0 && entry.cells[at]?.words && (
						<span className="text-soft md:hidden">{column.name}: </span>
					)}
					<Written column={column} entry={entry} at={at} acts={acts} />
				</Cell>
			))}
			{acts && list.edits && (
				<Cell className="text-right max-md:block max-md:border-0 max-md:text-left">
					{entry.struck && <span className="text-soft">struck out </span>}
					<Button kind="word" onClick={() => onOpen(entry.key)}>
						Change<span className="sr-only"> {nameOf(entry)}</span>
					</Button>
					{entry.mark && (
						<span className="block text-small font-[650]">{entry.mark}</span>
					)}
				</Cell>
			)}
		</tr>
	);
});

function Written({
	column,
	entry,
	at,
	acts,
}: {
	column: ListColumnDto;
	entry: ListEntryDto;
	at: number;
	acts?: ListActs;
}) {
	const cell = entry.cells[at];
	if (!cell?.words) return null;
	if (column.sort === "Link")
		return (
			<Button asChild kind="word" className="break-all">
				<a href={cell.text} target="_blank" rel="noreferrer noopener">
					{cell.words}
				</a>
			</Button>
		);
	const done = acts?.done;
	if (column.step && done) {
		const isDone = cell.text.endsWith(" done");
		return (
			<Tick
				label={cell.words.replace(/, done$/, "")}
				className={`max-md:inline-flex ${isDone ? "text-soft" : ""}`}
				checked={isDone}
				onChange={(to) => done(entry.key, column.key, to)}
			/>
		);
	}
	return <span className="break-words">{cell.words}</span>;
}

function Sums({ list }: { list: ListDto }) {
	if (list.sums.length === 0) return null;
	const of = (column: ListColumnDto) =>
		list.sums.find((sum) => sum.column === column.key)?.words;
	return (
		<tfoot>
			<tr className="max-md:block max-md:pt-2">
				{list.columns.map((column, at) => (
					<Cell
						key={column.key}
						sum
						end={isFigure(column)}
						className="max-md:block max-md:border-0 max-md:text-left"
					>
						{of(column) ? (
							<>
								<span className="text-soft md:hidden">
									{column.name} together:{" "}
								</span>
								{of(column)}
							</>
						) : (
							at === 0 && <span className="max-md:hidden">Together</span>
						)}
					</Cell>
				))}
			</tr>
		</tfoot>
	);
}
