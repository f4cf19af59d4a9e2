import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import type {
	DateStyle,
	ImportColumn,
	ImportDoneDto,
	ImportDto,
	ImportIdDto,
	ImportUndoneDto,
	KindDto,
	MatchingDto,
	NumberStyle,
	PreviewRowDto,
} from "../api/schema";
import { Alert, Select } from "../ui/Fields";
import { get, post, type Refusal, upload } from "../ui/http";
import { Shown } from "../ui/Shown";
import { useAct } from "./useAct";

const columns: Record<ImportColumn, string> = {
	LeaveOut: "leave it out",
	Name: "name",
	Organisation: "organisation",
	Mail: "mail",
	Phone: "phone",
	Profile: "profile",
	Title: "project",
	Kind: "kind of work",
	Source: "how they came",
	Inquired: "day of the inquiry",
	Date: "the date that matters",
	Standing: "where it stands",
	Amount: "price, net",
	Words: "notes",
};
const dates: Record<DateStyle, string> = {
	YearMonthDay: "2027-03-12",
	DayMonthYear: "12.3.2027 or 12/3/2027",
	MonthDayYear: "3/12/2027",
	DayMonthName: "12 Mar 2027",
};
const numbers: Record<NumberStyle, string> = {
	Point: "1,200.50",
	Comma: "1.200,50",
};

/** Takes over a table kept so far: choose a file, match its columns, look, take it over. */
export default function Import() {
	const id = useParams().id;
	useEffect(() => {
		document.title = "Take over a table, Gesamt";
	}, []);
	return (
		<main className="max-w-5xl px-5 pb-8">
			<div className="pt-4 pb-3">
				<h1>Take over a table</h1>
				<p className="text-soft">
					A table of projects or inquiries kept so far, saved as CSV. Nothing is
					kept before you have seen how it reads, and all of it can be taken
					back.
				</p>
			</div>
			{id ? <One key={id} id={id} /> : <Begin />}
		</main>
	);
}

function Begin() {
	const [refusal, setRefusal] = useState<Refusal>();
	const navigate = useNavigate();
	const before = useQuery({
		queryKey: ["imports"],
		queryFn: () => get<ImportDoneDto[]>("/api/imports"),
	});
	async function take(file?: File) {
		if (!file) return;
		try {
			const made = await upload<ImportIdDto>(
				`/api/imports?name=${encodeURIComponent(file.name)}`,
				file,
			);
			navigate(`/import/${made.id}`);
		} catch (error) {
			setRefusal(error as Refusal);
		}
	}
	return (
		<>
			<label className="btn btn-go">
				Choose a table
				<input
					type="file"
					accept=".csv,.tsv,.txt,text/csv"
					aria-label="Choose a table"
					className="sr-only"
					onChange={(e) => take(e.target.files?.[0])}
				/>
			</label>
			{refusal && <Alert>{refusal.of("file") ?? refusal.message}</Alert>}
			<section aria-label="Taken over before" className="pt-6">
				<h2 className="rule pb-1.5">Taken over before</h2>
				{before.data?.map((one) => (
					<Link
						key={one.id}
						to={`/import/${one.id}`}
						className="flex gap-3 border-b border-hair py-1.5"
					>
						<b className="font-[650]">{one.name}</b>
						<span className="text-soft">{states[one.state](one.made)}</span>
						<span className="ml-auto text-soft">{one.at}</span>
					</Link>
				))}
				{before.data?.length === 0 && (
					<p className="py-3 text-soft">No table yet.</p>
				)}
			</section>
		</>
	);
}

const states: Record<ImportDoneDto["state"], (made: number) => string> = {
	Matching: () => "not taken over yet",
	Running: (made) => `going on, ${made} so far`,
	Done: (made) => `${made} taken over`,
	Failed: (made) => `stopped after ${made}`,
	Undone: () => "taken back",
};

function One({ id }: { id: string }) {
	const [matching, setMatching] = useState<MatchingDto>();
	const table = useQuery({
		queryKey: ["import", id],
		queryFn: () => get<ImportDto>(`/api/imports/${id}`),
		refetchInterval: (query) =>
			query.state.data?.state === "Running" ? 400 : false,
	});
	const tried = useQuery({
		queryKey: ["import-tried", id, matching],
		queryFn: () => post<ImportDto>(`/api/imports/${id}/preview`, matching),
		enabled: matching !== undefined && table.data?.state === "Matching",
		placeholderData: (before) => before,
		retry: false,
	});
	return (
		<Shown query={table}>
			{(data) =>
				data.state === "Matching" ? (
					<Match
						table={{
							...(tried.data ?? data),
							matching: matching ?? data.matching,
						}}
						problem={tried.error as Refusal | null}
						onChange={setMatching}
					/>
				) : (
					<Taken table={data} />
				)
			}
		</Shown>
	);
}

function Match({
	table,
	problem,
	onChange,
}: {
	table: ImportDto;
	problem: Refusal | null;
	onChange: (matching: MatchingDto) => void;
}) {
	const act = useAct();
	const { matching } = table;
	const kinds = useQuery({
		queryKey: ["kinds"],
		queryFn: () => get<KindDto[]>("/api/kinds"),
	});
	const right = table.total - table.wrongRows;
	return (
		<div className="grid gap-5">
			<p>
				<b className="font-[650]">{table.name}</b>: {table.total} rows, columns
				apart by “{table.separator}”.
			</p>
			<div className="overflow-x-auto">
				<table className="w-full text-[14px]">
					<thead className="rule text-left">
						<tr>
							<th scope="col" className="py-1 pr-4 font-semibold">
								Column
							</th>
							<th scope="col" className="pr-4 font-semibold">
								Is
							</th>
							<th scope="col" className="font-semibold">
								For example
							</th>
						</tr>
					</thead>
					<tbody>
						{table.headings.map((heading, i) => (
							<tr key={`${heading}${i}`} className="border-b border-hair">
								<td className="py-1 pr-4 font-[650]">{heading}</td>
								<td className="pr-4">
									<Select
										label={`${heading} is`}
										hidden
										value={matching.columns[i]}
										onChange={(e) =>
											onChange({
												...matching,
												columns: matching.columns.map((one, at) =>
													at === i ? (e.target.value as ImportColumn) : one,
												),
											})
										}
									>
										{Object.entries(columns).map(([column, words]) => (
											<option key={column} value={column}>
												{words}
											</option>
										))}
									</Select>
								</td>
								<td className="text-soft">
									{table.sample
										.map((row) => row[i])
										.filter(Boolean)
										.join("; ")}
								</td>
							</tr>
						))}
					</tbody>
				</table>
			</div>
			<div className="grid gap-3 md:grid-cols-3">
				<Select
					label="Dates are written"
					hint={
						table.dateStyles.length > 1
							? "more than one way would fit: look at the weekdays below"
							: undefined
					}
					value={matching.dates}
					onChange={(e) =>
						onChange({ ...matching, dates: e.target.value as DateStyle })
					}
				>
					{Object.entries(dates).map(([style, words]) => (
						<option key={style} value={style}>
							{words}
						</option>
					))}
				</Select>
				<Select
					label="Numbers are written"
					hint={
						table.numbersInDoubt
							? "both ways would fit and mean different sums: look at the amounts below"
							: undefined
					}
					value={matching.numbers}
					onChange={(e) =>
						onChange({ ...matching, numbers: e.target.value as NumberStyle })
					}
				>
					{Object.entries(numbers).map(([style, words]) => (
						<option key={style} value={style}>
							{words}
						</option>
					))}
				</Select>
				<Select
					label="Kind of work, where none is named"
					value={String(matching.kind ?? "")}
					onChange={(e) =>
						onChange({ ...matching, kind: Number(e.target.value) || null })
					}
				>
					<option value="">none</option>
					{kinds.data?.map((kind) => (
						<option key={kind.id} value={kind.id}>
							{kind.name}
						</option>
					))}
				</Select>
			</div>
			{problem && <Alert>{problem.message}</Alert>}
			<Rows title="So it reads" rows={table.preview} />
			{table.wrongRows > 0 && (
				<Rows
					title={`${table.wrongRows} row${table.wrongRows === 1 ? "" : "s"} would be left out`}
					rows={table.errors}
				/>
			)}
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
			<div>
				<button
					type="button"
					className="btn btn-go"
					disabled={act.busy || right === 0 || problem !== null}
					onClick={() =>
						act.run(() => post(`/api/imports/${table.id}/run`, matching))
					}
				>
					Take over {right} row{right === 1 ? "" : "s"}
				</button>
			</div>
		</div>
	);
}

function Rows({
	title,
	rows,
}: {
	title: string;
	rows: readonly PreviewRowDto[];
}) {
	return (
		<section aria-label={title}>
			<h2 className="rule pb-1.5">{title}</h2>
			<ol>
				{rows.map((row) => (
					<li
						key={row.row}
						className="grid grid-cols-[56px_1fr] border-b border-hair py-1 text-[14px]"
					>
						<span className="num text-soft">row {row.row}</span>
						<span>
							{row.read.join("; ")}
							{row.wrong.map((one) => (
								<b key={one} className="block font-[650]">
									{one}
								</b>
							))}
						</span>
					</li>
				))}
			</ol>
		</section>
	);
}

function Taken({ table }: { table: ImportDto }) {
	const act = useAct();
	const [undone, setUndone] = useState<ImportUndoneDto>();
	return (
		<div className="grid gap-5">
			<p role="status">
				<b className="font-[650]">{table.name}</b>:{" "}
				{states[table.state](table.made)}
				{table.errors.length > 0 && `, ${table.errors.length} left out`}.{" "}
				{table.problem}
			</p>
			{table.state === "Running" && (
				<progress
					className="h-3.5 w-full accent-(--ink)"
					aria-label="Rows read"
					max={table.total}
					value={table.read}
				/>
			)}
			{undone && (
				<p className="font-[650]">
					{undone.removed} taken back
					{undone.kept > 0 &&
						`; ${undone.kept} went on since and stay as they are`}
				</p>
			)}
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
			<div className="flex gap-2">
				<Link className="btn btn-go" to="/register">
					Look at the Register
				</Link>
				{(table.state === "Done" || table.state === "Failed") && (
					<button
						type="button"
						className="btn"
						disabled={act.busy}
						onClick={() =>
							act.run(async () =>
								setUndone(
									await post<ImportUndoneDto>(`/api/imports/${table.id}/undo`),
								),
							)
						}
					>
						Take all of it back
					</button>
				)}
			</div>
			{table.errors.length > 0 && <Rows title="Left out" rows={table.errors} />}
		</div>
	);
}
