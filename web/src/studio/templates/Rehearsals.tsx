import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import type {
	KindDto,
	RehearsalDto,
	RehearsedDto,
	RoutineRowDto,
} from "../../api/schema";
import { Alert, Select, TextField } from "../../ui/Fields";
import { get, post } from "../../ui/http";
import { Shown } from "../../ui/Shown";
import { FileWith } from "../Tray";
import { useAct } from "../useAct";
import { Played } from "./Played";

/** Trying things out: a routine played through, or a whole project that counts nowhere. */
export function Rehearsals({ kinds }: { kinds: readonly KindDto[] }) {
	return (
		<div className="grid content-start gap-8">
			<h2 className="text-[19px]">Rehearsals</h2>
			<Routine />
			<Projects kinds={kinds} />
		</div>
	);
}

const ways = [
	{ way: "opens", words: "opens the proposal" },
	{ way: "answers", words: "answers" },
	{ way: "chooses", words: "chooses" },
	{ way: "signs", words: "signs" },
	{ way: "pays", words: "pays" },
	{ way: "returnsForm", words: "returns a form" },
] as const;

type Ways = Record<(typeof ways)[number]["way"], string>;

const never: Ways = {
	opens: "",
	answers: "",
	chooses: "",
	signs: "",
	pays: "",
	returnsForm: "",
};

/** A routine for a project, with a client who behaves as is said. */
function Routine() {
	const [search, setSearch] = useSearchParams();
	const [said, setSaid] = useState<Ways>(never);
	const [played, setPlayed] = useState<RehearsedDto[]>();
	const act = useAct();
	const routines = useQuery({
		queryKey: ["routines"],
		queryFn: () => get<RoutineRowDto[]>("/api/routines"),
	});
	const routine = search.get("routine") ?? "";
	const project = search.get("project");
	async function play(event: FormEvent) {
		event.preventDefault();
		setPlayed(undefined);
		await act.run(async () =>
			setPlayed(
				await post<RehearsedDto[]>("/api/routines/rehearse", {
					routine: Number(routine),
					project: Number(project),
					ways: Object.fromEntries(
						ways.map(({ way }) => [way, said[way] ? Number(said[way]) : null]),
					),
				}),
			),
		);
	}
	return (
		<section aria-label="A routine">
			<div className="rule flex items-baseline gap-2 pb-1.5">
				<h3>A routine</h3>
				<span className="text-[14px] text-soft">
					every step with its date and its letter; nothing is recorded
				</span>
			</div>
			<form onSubmit={play} className="grid gap-3 pt-3">
				<div className="grid gap-3 md:grid-cols-2">
					<Select
						label="Routine"
						value={routine}
						onChange={(e) =>
							setSearch(
								{
									routine: e.target.value,
									...(project
										? { project, title: search.get("title") ?? "" }
										: {}),
								},
								{ replace: true },
							)
						}
					>
						<option value="">choose</option>
						{routines.data?.map((one) => (
							<option key={one.id} value={one.id}>
								{one.name} of {one.kindName}
							</option>
						))}
					</Select>
					<div>
						<span className="label">Project</span>
						<div className="flex items-center gap-3">
							{project && (
								<b className="font-[650]">
									{search.get("title") ?? `project ${project}`}
								</b>
							)}
							<FileWith
								label={project ? "another" : "find a project"}
								onChoose={(id, title) =>
									setSearch(
										{ routine, project: String(id), title },
										{ replace: true },
									)
								}
							/>
						</div>
					</div>
				</div>
				<fieldset>
					<legend className="label">
						The client, after so many days; empty is never
					</legend>
					<div className="grid grid-cols-2 gap-3 md:grid-cols-6">
						{ways.map(({ way, words }) => (
							<TextField
								key={way}
								label={words}
								type="number"
								min={0}
								value={said[way]}
								wrong={act.refusal?.of(`ways.${way}`)}
								onChange={(e) => setSaid({ ...said, [way]: e.target.value })}
							/>
						))}
					</div>
				</fieldset>
				{act.refusal && <Alert>{act.refusal.message}</Alert>}
				<div>
					<button
						type="submit"
						className="btn btn-go"
						disabled={act.busy || !routine || !project}
					>
						Rehearse it
					</button>
				</div>
			</form>
			{played && <Played key={played.length} events={played} />}
		</section>
	);
}

/** Whole projects that are rehearsals. */
function Projects({ kinds }: { kinds: readonly KindDto[] }) {
	const rehearsals = useQuery({
		queryKey: ["rehearsals"],
		queryFn: () => get<RehearsalDto[]>("/api/rehearsals"),
	});
	return (
		<section aria-label="Whole projects">
			<div className="rule flex items-baseline gap-2 pb-1.5">
				<h3>Whole projects</h3>
				<span className="text-[14px] text-soft">
					like any other, with a clock of their own; they count nowhere
				</span>
			</div>
			<Shown query={rehearsals}>
				{(data) => (
					<>
						{data.map((one) => (
							<div
								key={one.id}
								className="flex flex-wrap gap-x-3 border-b border-hair py-2"
							>
								<Link className="font-[650]" to={`/projects/${one.id}`}>
									{one.title}
								</Link>
								<span className="text-soft">
									{one.kind}. {one.words}
								</span>
								<span className="num ml-auto text-(--date)">{one.clock}</span>
							</div>
						))}
						{data.length === 0 && (
							<p className="py-3 text-soft">
								No project is rehearsed. Begin one and wind its clock: letters,
								papers and steps come as they would, and none leaves the house.
							</p>
						)}
					</>
				)}
			</Shown>
			<Begin kinds={kinds} />
		</section>
	);
}

function Begin({ kinds }: { kinds: readonly KindDto[] }) {
	const [said, setSaid] = useState({
		kind: String(kinds[0]?.id ?? ""),
		name: "",
		date: "",
		toOwner: false,
	});
	const act = useAct();
	const navigate = useNavigate();
	async function begin(event: FormEvent) {
		event.preventDefault();
		let id = 0;
		const made = await act.run(async () => {
			id = (
				await post<{ id: number }>("/api/rehearsals", {
					kind: Number(said.kind),
					name: said.name,
					date: said.date || null,
					toOwner: said.toOwner,
				})
			).id;
		});
		if (made) navigate(`/projects/${id}`);
	}
	return (
		<form onSubmit={begin} className="grid gap-3 pt-4">
			<div className="grid gap-3 md:grid-cols-3">
				<TextField
					label="Whom you make up"
					placeholder="A name"
					value={said.name}
					wrong={act.refusal?.of("name")}
					onChange={(e) => setSaid({ ...said, name: e.target.value })}
				/>
				<Select
					label="Kind of work"
					value={said.kind}
					wrong={act.refusal?.of("kind")}
					onChange={(e) => setSaid({ ...said, kind: e.target.value })}
				>
					{kinds.map((kind) => (
						<option key={kind.id} value={kind.id}>
							{kind.name}
						</option>
					))}
				</Select>
				<TextField
					label="The date that matters"
					type="date"
					value={said.date}
					onChange={(e) => setSaid({ ...said, date: e.target.value })}
				/>
			</div>
			<label className="flex gap-2.5">
				<input
					type="checkbox"
					className="mt-1 size-4 accent-(--ink)"
					checked={said.toOwner}
					onChange={(e) => setSaid({ ...said, toOwner: e.target.checked })}
				/>
				Send its letters to my own address
			</label>
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
			<div>
				<button
					type="submit"
					className="btn"
					disabled={act.busy || !said.name.trim()}
				>
					Begin the rehearsal
				</button>
			</div>
		</form>
	);
}
