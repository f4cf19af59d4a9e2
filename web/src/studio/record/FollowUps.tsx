import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type {
	GoOnDto,
	ProjectRoutinesDto,
	RecordDto,
	WaitingRoutineDto,
} from "../../api/schema";
import { Alert, Select } from "../../ui/Fields";
import { get, post } from "../../ui/http";
import { Shown } from "../../ui/Shown";
import { useUndo } from "../../ui/Undo";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";
import { Block } from "./Block";

/** The routines at work on a project, those to come, and the one act that stops all of it. */
export function FollowUps({ record }: { record: RecordDto }) {
	const routines = useQuery({
		queryKey: ["project-routines", record.id],
		queryFn: () =>
			get<ProjectRoutinesDto>(`/api/projects/${record.id}/routines`),
	});
	const [beginning, setBeginning] = useState<WaitingRoutineDto>();
	return (
		<Block
			title="Follow-ups"
			aside={routines.data && <Stop record={record} routines={routines.data} />}
		>
			<Shown query={routines}>
				{(data) => (
					<div className="text-[14.3px]">
						{data.runs.map((run, i) => (
							<p key={`${run.name}${i}`} className="flex gap-3 py-0.5">
								{run.name}
								<span className="ml-auto text-right text-soft">
									{run.state}
								</span>
							</p>
						))}
						{data.runs.length === 0 && (
							<p className="py-1 text-soft">Nothing follows up yet.</p>
						)}
						{data.waiting.length > 0 && !record.ended && (
							<details className="pt-1">
								<summary className="text-small text-soft">
									{data.waiting.length} that could begin
								</summary>
								{data.waiting.map((one) => (
									<p key={one.id} className="flex gap-3 py-1">
										<span>
											{one.name}
											<span className="under block">{one.begins}</span>
										</span>
										<button
											type="button"
											className="link ml-auto text-small"
											onClick={() => setBeginning(one)}
										>
											{one.variants.length > 0 && !one.again
												? "choose or begin"
												: "begin"}
											<span className="sr-only">: {one.name}</span>
										</button>
									</p>
								))}
							</details>
						)}
					</div>
				)}
			</Shown>
			{beginning && (
				<Begin
					record={record}
					routine={beginning}
					onClose={() => setBeginning(undefined)}
				/>
			)}
		</Block>
	);
}

function Stop({
	record,
	routines,
}: {
	record: RecordDto;
	routines: ProjectRoutinesDto;
}) {
	const act = useAct();
	const offer = useUndo();
	const goOn = async () => {
		let said: GoOnDto | undefined;
		await act.run(async () => {
			said = await post<GoOnDto>(`/api/projects/${record.id}/go-on`);
		});
		if (said && said.missed.length > 0)
			offer({
				words: `Missed meanwhile and left: ${said.missed.join(", ")}`,
				undo: async () => undefined,
			});
	};
	return (
		<span className="flex gap-3">
			{routines.toGoOn > 0 && (
				<button
					type="button"
					className="link"
					disabled={act.busy}
					onClick={goOn}
				>
					let {routines.toGoOn} go on
				</button>
			)}
			{routines.pending > 0 && (
				<button
					type="button"
					className="link"
					disabled={act.busy}
					onClick={async () => {
						if (
							await act.run(() =>
								post(`/api/projects/${record.id}/stop-pending`),
							)
						)
							offer({ words: "Everything pending is stopped", undo: goOn });
					}}
				>
					stop all {routines.pending}
				</button>
			)}
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
		</span>
	);
}

/** Begins a routine by hand: its variant, and without the parts that do not apply. */
function Begin({
	record,
	routine,
	onClose,
}: {
	record: RecordDto;
	routine: WaitingRoutineDto;
	onClose: () => void;
}) {
	const [variant, setVariant] = useState(
		routine.variants.find((one) => one.chosen)?.name ??
			routine.variants.at(-1)?.name ??
			"",
	);
	const [left, setLeft] = useState<string[]>([]);
	const act = useAct();
	const run = async (path: string, body: unknown) => {
		if (
			await act.run(() =>
				post(`/api/projects/${record.id}/routines/${path}`, body),
			)
		)
			onClose();
	};
	return (
		<Window title={routine.name} open wide onClose={onClose}>
			<div className="grid gap-3">
				<p className="text-soft">{routine.begins}.</p>
				{routine.variants.length > 0 && (
					<Select
						label="Variant"
						value={variant}
						wrong={act.refusal?.of("variant")}
						onChange={(e) => setVariant(e.target.value)}
					>
						{routine.variants.map((one) => (
							<option key={one.name} value={one.name}>
								{one.name}, {one.since}
								{one.fits ? "" : ": there is less time than that"}
							</option>
						))}
					</Select>
				)}
				<fieldset className="grid gap-1.5">
					<legend className="label">Its steps</legend>
					{routine.steps.map((step) => (
						<label key={step.key} className="flex gap-2.5 text-[14.3px]">
							<input
								type="checkbox"
								className="mt-1 size-4 shrink-0 accent-(--ink)"
								checked={!left.includes(step.key)}
								onChange={(e) =>
									setLeft(
										e.target.checked
											? left.filter((one) => one !== step.key)
											: [...left, step.key],
									)
								}
							/>
							{step.sentence}
						</label>
					))}
				</fieldset>
				{act.refusal && <Alert>{act.refusal.message}</Alert>}
				<div className="flex flex-wrap gap-2">
					<button
						type="button"
						className="btn btn-go"
						disabled={act.busy}
						onClick={() =>
							run("begin", {
								routine: routine.id,
								variant: variant || null,
								leaveOut: left,
							})
						}
					>
						Begin it now
					</button>
					{routine.variants.length > 0 && !routine.again && (
						<button
							type="button"
							className="btn"
							disabled={act.busy}
							onClick={() => run("variant", { routine: routine.id, variant })}
						>
							Choose this variant for when it begins
						</button>
					)}
					<Link
						className="btn"
						to={`/templates/rehearsals?routine=${routine.id}&project=${record.id}&title=${encodeURIComponent(record.title)}`}
					>
						Rehearse it
					</Link>
				</div>
			</div>
		</Window>
	);
}
