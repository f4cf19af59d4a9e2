import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Link, useNavigate } from "react-router";
import type { KindPageDto, RoutineRowDto } from "../../api/schema";
import { Alert, TextArea, TextField } from "../../ui/Fields";
import { get, post } from "../../ui/http";
import { Shown } from "../../ui/Shown";
import { useAct } from "../useAct";
import { Section } from "./Section";

/** Every routine of every kind: on or off, who is in it, and what keeps it off. */
export function RoutineList() {
	const routines = useQuery({
		queryKey: ["routines"],
		queryFn: () => get<RoutineRowDto[]>("/api/routines"),
	});
	return (
		<div className="grid content-start gap-5">
			<h2 className="text-[19px]">All routines</h2>
			<Shown query={routines}>
				{(data) =>
					data.length === 0 ? (
						<p className="text-soft">
							There is no routine yet. Begin one on the page of a kind of work.
						</p>
					) : (
						[...new Set(data.map((one) => one.kindName))].map((kind) => (
							<section key={kind} aria-label={kind}>
								<h3 className="rule pb-1">{kind}</h3>
								<Table routines={data.filter((one) => one.kindName === kind)} />
							</section>
						))
					)
				}
			</Shown>
		</div>
	);
}

/** The routines of one kind, and a way to begin another. */
export function KindRoutines({ kind }: { kind: KindPageDto }) {
	return (
		<Section
			title="Routines"
			under={kind.routines.map((one) => one.name.toLowerCase()).join(", ")}
		>
			<Table routines={kind.routines} />
			<NewRoutine kind={kind} />
		</Section>
	);
}

const columns = ["in it now", "finished", "taken out", "failed"] as const;

function Table({ routines }: { routines: readonly RoutineRowDto[] }) {
	return (
		<table className="w-full text-[14.3px]">
			<thead>
				<tr className="text-left text-small text-soft">
					<th className="py-1 pr-3 font-normal">
						<span className="sr-only">Routine</span>
					</th>
					<th className="py-1 pr-3 font-normal">
						<span className="sr-only">On or off</span>
					</th>
					{columns.map((column) => (
						<th
							key={column}
							className="py-1 pl-3 text-right font-normal whitespace-nowrap"
						>
							{column}
						</th>
					))}
				</tr>
			</thead>
			<tbody>
				{routines.map((routine) => (
					<tr key={routine.id} className="border-b border-hair align-top">
						<td className="py-1.5 pr-3">
							<Link
								data-walk
								className="font-[600]"
								to={`/templates/routines/${routine.id}`}
							>
								{routine.name}
							</Link>
							<span className="under block">
								begins with {routine.begins}, {routine.steps} step
								{routine.steps === 1 ? "" : "s"}
							</span>
							{routine.trouble.map((one) => (
								<span key={one} className="block text-small font-[650]">
									{one}
								</span>
							))}
						</td>
						<td className="py-1.5 pr-3 whitespace-nowrap">
							<OnOff routine={routine} />
						</td>
						{[
							routine.inIt,
							routine.finished,
							routine.takenOut,
							routine.failed,
						].map((count, i) => (
							<td
								key={columns[i]}
								className={`num py-1.5 pl-3 text-right ${count === 0 ? "text-soft" : ""} ${columns[i] === "failed" && count > 0 ? "font-[700]" : ""}`}
							>
								{count}
							</td>
						))}
					</tr>
				))}
			</tbody>
		</table>
	);
}

/** A routine is on, off by its owner's word, or kept off by what it lacks. */
export function OnOff({
	routine,
}: {
	routine: Pick<RoutineRowDto, "id" | "name" | "off" | "trouble">;
}) {
	const act = useAct();
	if (routine.trouble.length > 0)
		return <span className="font-[650]">kept off</span>;
	return (
		<>
			<label className="flex items-center gap-2">
				<input
					type="checkbox"
					className="size-4 accent-(--ink)"
					checked={!routine.off}
					disabled={act.busy}
					aria-label={`${routine.name} is on`}
					onChange={(e) =>
						act.run(() =>
							post(`/api/routines/${routine.id}/off`, {
								off: !e.target.checked,
							}),
						)
					}
				/>
				{routine.off ? "off" : "on"}
			</label>
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
		</>
	);
}

/** A new routine: empty, or read from text. */
function NewRoutine({ kind }: { kind: KindPageDto }) {
	const [name, setName] = useState("");
	const [text, setText] = useState<string>();
	const act = useAct();
	const navigate = useNavigate();
	async function begin(event: FormEvent) {
		event.preventDefault();
		let id = 0;
		const made = await act.run(async () => {
			id = (
				await post<{ id: number }>("/api/routines", {
					kind: kind.id,
					name: text === undefined ? name : null,
					text: text ?? null,
					copy: null,
				})
			).id;
		});
		if (made) navigate(`/templates/routines/${id}`);
	}
	return (
		<form onSubmit={begin} className="grid gap-2 pt-3">
			{text === undefined ? (
				<div className="max-w-sm">
					<TextField
						label="A new routine"
						placeholder="Its name"
						value={name}
						wrong={act.refusal?.of("name")}
						onChange={(e) => setName(e.target.value)}
					/>
				</div>
			) : (
				<TextArea
					label="A routine as text"
					rows={10}
					className="font-mono text-[13.5px]"
					value={text}
					wrong={act.refusal?.of("text")}
					onChange={(e) => setText(e.target.value)}
				/>
			)}
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
			<div className="flex gap-2">
				<button
					type="submit"
					className="btn"
					disabled={act.busy || !(text ?? name).trim()}
				>
					Begin the routine
				</button>
				<button
					type="button"
					className="btn"
					onClick={() => setText(text === undefined ? "" : undefined)}
				>
					{text === undefined ? "Paste one as text" : "Without text"}
				</button>
			</div>
		</form>
	);
}
