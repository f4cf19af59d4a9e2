import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";
import { answer, api } from "../../api/client";
import type {
	RoutineDraftDto,
	RoutinePageDto,
	StepDto,
} from "../../api/schema";
import { Alert } from "../../ui/Alert";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { Shown } from "../../ui/Shown";
import { TextField } from "../../ui/TextField";
import { FileWith } from "../FileWith";
import { useAct } from "../useAct";
import { newStep } from "./newStep";
import { OnOff } from "./OnOff";
import { PageActs } from "./PageActs";
import { AsText, Runs, Variants } from "./RoutineParts";
import { RoutineStep } from "./RoutineStep";

import { causes } from "./stepWords";
import { useChecked } from "./useChecked";

/** One routine: a dated list read like sentences, with the dates it would give a project beside it. */
export function RoutinePage() {
	const id = Number(useParams().id);
	const routine = useQuery({
		queryKey: ["routine", id],
		queryFn: () =>
			answer(api.GET("/api/routines/{id}", { params: { path: { id } } })),
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
						<RoutineStep
							key={`${step.key}${i}`}
							at={i}
							step={step}
							page={page}
							draft={draft}
							checked={checked}
							open={open === i}
							wrong={wrong}
							onOpen={() => setOpen(open === i ? undefined : i)}
							onChange={(part) => setStep(i, part)}
							onMove={(by) => move(i, by)}
							onTakeOut={() => {
								set({ steps: draft.steps.filter((_, at) => at !== i) });
								setOpen(undefined);
							}}
						/>
					))}
				</ol>
				{draft.steps.length === 0 && (
					<p className="py-3 text-soft">
						No step yet. Each says when it acts, what it does, and what ends it.
					</p>
				)}
			</section>
			<Refused of={act.refusal} />
			<div className="flex flex-wrap gap-2">
				<Button
					onClick={() => {
						set({ steps: [...draft.steps, newStep(draft, page)] });
						setOpen(draft.steps.length);
					}}
				>
					Add a step
				</Button>
				<Button
					kind="go"
					disabled={act.busy || draft === page.routine}
					onClick={() =>
						act.run(() =>
							answer(
								api.PUT("/api/routines/{id}", {
									params: { path: { id: page.id } },
									body: {
										routine: draft,
										edition: page.edition,
									},
								}),
							),
						)
					}
				>
					Keep the routine
				</Button>
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
