import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import type {
	CheckedRoutineDto,
	RoutineDraftDto,
	RoutinePageDto,
	StepDto,
} from "../../api/schema";
import { Alert, Select, TextField } from "../../ui/Fields";
import { get, post, put } from "../../ui/http";
import { Shown } from "../../ui/Shown";
import { useUndo } from "../../ui/Undo";
import { FileWith } from "../Tray";
import { useAct } from "../useAct";
import { AsText, Runs, Variants } from "./RoutineParts";
import { OnOff } from "./Routines";
import { StepEditor } from "./StepEditor";
import { causes } from "./stepWords";

/** One routine: a dated list read like sentences, with the dates it would give a project beside it. */
export function RoutinePage() {
	const id = useParams().id!;
	const routine = useQuery({
		queryKey: ["routine", id],
		queryFn: () => get<RoutinePageDto>(`/api/routines/${id}`),
	});
	return (
		<Shown query={routine}>
			{(data) => <Page key={`${data.id}.${data.edition}`} page={data} />}
		</Shown>
	);
}

function Page({ page }: { page: RoutinePageDto }) {
	const [draft, setDraft] = useState<RoutineDraftDto>(page.routine);
	const [open, setOpen] = useState<number>();
	const [project, setProject] = useState<{ id: number; title: string }>();
	const act = useAct();
	const checked = useChecked(page.kind, draft, project?.id);
	const wrong = (field: string) =>
		act.refusal?.of(field) ??
		checked?.mistakes
			.filter((one) => one.field === field)
			.map((one) => one.words)
			.join(" ");
	const set = (part: Partial<RoutineDraftDto>) =>
		setDraft({ ...draft, ...part });
	const setStep = (at: number, part: Partial<StepDto>) =>
		set({
			steps: draft.steps.map((one, i) =>
				i === at ? { ...one, ...part } : one,
			),
		});
	const move = (at: number, by: 1 | -1) => {
		const steps = [...draft.steps];
		const [moved] = steps.splice(at, 1);
		steps.splice(at + by, 0, moved!);
		set({ steps });
		setOpen(at + by);
	};
	return (
		<div className="grid content-start gap-5">
			<div className="flex flex-wrap items-baseline gap-x-3 gap-y-1">
				<h2 className="text-[19px]">{page.routine.name}</h2>
				<span className="text-soft">of {page.kindName}</span>
				<OnOff
					routine={{
						id: page.id,
						name: page.routine.name,
						off: page.off,
						trouble: page.trouble,
					}}
				/>
				<PageActs page={page} />
			</div>
			{page.trouble.length > 0 && (
				<Alert>It is kept off. {page.trouble.join(" ")}</Alert>
			)}
			<div className="grid gap-3 md:grid-cols-2">
				<TextField
					label="Name"
					value={draft.name}
					wrong={wrong("name") || undefined}
					onChange={(e) => set({ name: e.target.value })}
				/>
				<Select
					label="Begins with"
					value={draft.begins}
					wrong={wrong("begins") || undefined}
					onChange={(e) =>
						set({ begins: e.target.value as RoutineDraftDto["begins"] })
					}
				>
					{Object.entries(causes)
						.filter(
							([cause]) => cause !== "RunBegun" && cause !== "PreviousStep",
						)
						.map(([cause, words]) => (
							<option key={cause} value={cause}>
								{words}
							</option>
						))}
				</Select>
			</div>
			<Variants draft={draft} wrong={wrong("variants")} onChange={set} />
			<section aria-label="Steps">
				<div className="rule flex flex-wrap items-end gap-3 pb-1.5">
					<h3>Steps</h3>
					<span className="ml-auto text-small text-soft">
						{project
							? `dates for ${project.title}, if it began now`
							: "dates for"}
					</span>
					<Search onChoose={setProject} />
				</div>
				<ol>
					{draft.steps.map((step, i) => (
						<li key={`${step.key}${i}`} className="border-b border-hair py-2">
							<div className="flex gap-3">
								<button
									type="button"
									data-walk
									className="text-left"
									aria-expanded={open === i}
									onClick={() => setOpen(open === i ? undefined : i)}
								>
									{checked?.steps[i]?.sentence ?? "…"}
								</button>
								{checked?.steps[i]?.date && (
									<span className="num ml-auto text-[13.4px] whitespace-nowrap text-(--date)">
										{checked.steps[i].date}
									</span>
								)}
							</div>
							{checked?.mistakes
								.filter((one) => one.field.startsWith(`steps[${i}].`))
								.map((one) => (
									<p key={one.field} className="wrong">
										{one.words}
									</p>
								))}
							{open === i && (
								<StepEditor
									step={step}
									choices={page.choices}
									variants={draft.variants}
									wrong={(field) => wrong(`steps[${i}].${field}`) || undefined}
									onChange={(part) => setStep(i, part)}
									onTakeOut={() => {
										set({ steps: draft.steps.filter((_, at) => at !== i) });
										setOpen(undefined);
									}}
									onUp={i > 0 ? () => move(i, -1) : undefined}
									onDown={
										i < draft.steps.length - 1 ? () => move(i, 1) : undefined
									}
								/>
							)}
						</li>
					))}
				</ol>
				{draft.steps.length === 0 && (
					<p className="py-3 text-soft">
						No step yet. Each says when it acts, what it does, and what ends it.
					</p>
				)}
			</section>
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
			<div className="flex flex-wrap gap-2">
				<button
					type="button"
					className="btn"
					onClick={() => {
						set({ steps: [...draft.steps, newStep(draft, page)] });
						setOpen(draft.steps.length);
					}}
				>
					Add a step
				</button>
				<button
					type="button"
					className="btn btn-go"
					disabled={act.busy || draft === page.routine}
					onClick={() =>
						act.run(() =>
							put(`/api/routines/${page.id}`, {
								routine: draft,
								edition: page.edition,
							}),
						)
					}
				>
					Keep the routine
				</button>
				<span className="self-center text-small text-soft">
					Runs that have begun keep the steps they began with.
				</span>
			</div>
			<AsText text={checked?.text ?? page.text} onRead={setDraft} />
			<Runs page={page} />
		</div>
	);
}

/** Finds a project whose dates are shown. */
function Search({
	onChoose,
}: {
	onChoose: (project: { id: number; title: string }) => void;
}) {
	return (
		<FileWith
			label="a project"
			onChoose={(id, title) => onChoose({ id, title })}
		/>
	);
}

const newStep = (draft: RoutineDraftDto, page: RoutinePageDto): StepDto => ({
	key: "",
	cause: draft.begins,
	count: 3,
	unit: "Days",
	at: "09:00:00",
	dateName: null,
	anyHour: false,
	does: "Letter",
	what: null,
	letter: page.choices.letters[0]?.key ?? null,
	mode: "AsksFirst",
	stops: ["Answered"],
	lateStart: "Skip",
	sources: [],
	answers: [],
	in: [],
	favour: false,
});

/** Asks the server what it reads like and what is wrong, a moment after the last key. */
function useChecked(kind: number, routine: RoutineDraftDto, project?: number) {
	const [checked, setChecked] = useState<CheckedRoutineDto>();
	useEffect(() => {
		const timer = setTimeout(
			() =>
				post<CheckedRoutineDto>("/api/routines/check", {
					kind,
					routine,
					project: project ?? null,
				}).then(setChecked, () => undefined),
			150,
		);
		return () => clearTimeout(timer);
	}, [kind, routine, project]);
	return checked;
}

function PageActs({ page }: { page: RoutinePageDto }) {
	const act = useAct();
	const offer = useUndo();
	const navigate = useNavigate();
	const remove = (removed: boolean) =>
		act.run(() => post(`/api/routines/${page.id}/removed`, { removed }));
	return (
		<span className="ml-auto flex flex-wrap gap-2">
			<Link className="btn" to={`/templates/rehearsals?routine=${page.id}`}>
				Rehearse it
			</Link>
			<a className="btn" href={`/api/routines/${page.id}.txt`}>
				Keep as a file
			</a>
			<button
				type="button"
				className="btn"
				disabled={act.busy}
				onClick={async () => {
					if (await remove(true)) {
						offer({
							words: `“${page.routine.name}” taken away. Its runs go on.`,
							undo: () => remove(false),
						});
						navigate("/templates/routines");
					}
				}}
			>
				Take it away
			</button>
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
		</span>
	);
}
