import { useState } from "react";
import { Link } from "react-router";
import { answer, api } from "../../api/client";
import type { RecordDto, WaitingRoutineDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { Tick } from "../../ui/Tick";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";

/** Begins a routine by hand: its variant, and without the parts that do not apply. */
export function Begin({
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
	const params = { path: { id: record.id } };
	const run = async (begin: () => Promise<unknown>) => {
		if (await act.run(begin)) onClose();
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
						<Tick
							key={step.key}
							label={step.sentence}
							className="text-[14.3px]"
							checked={!left.includes(step.key)}
							onChange={(checked) =>
								setLeft(
									checked
										? left.filter((one) => one !== step.key)
										: [...left, step.key],
								)
							}
						/>
					))}
				</fieldset>
				<Refused of={act.refusal} />
				<div className="flex flex-wrap gap-2">
					<Button
						kind="go"
						disabled={act.busy}
						onClick={() =>
							run(() =>
								answer(
									api.POST("/api/projects/{id}/routines/begin", {
										params,
										body: {
											routine: routine.id,
											variant: variant || null,
											leaveOut: left,
										},
									}),
								),
							)
						}
					>
						Begin it now
					</Button>
					{routine.variants.length > 0 && !routine.again && (
						<Button
							disabled={act.busy}
							onClick={() =>
								run(() =>
									answer(
										api.POST("/api/projects/{id}/routines/variant", {
											params,
											body: { routine: routine.id, variant },
										}),
									),
								)
							}
						>
							Choose this variant for when it begins
						</Button>
					)}
					<Button asChild>
						<Link
							to={`/templates/rehearsals?routine=${routine.id}&project=${record.id}&title=${encodeURIComponent(record.head.title)}`}
						>
							Rehearse it
						</Link>
					</Button>
				</div>
			</div>
		</Window>
	);
}
