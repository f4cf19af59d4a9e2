import { useState } from "react";
import { answer, api } from "../../api/client";
import type { PhaseState, RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { useAct } from "../useAct";
import { ArrangePhases } from "./ArrangePhases";
import { Block } from "./Block";

export const phaseWords: Record<PhaseState, string> = {
	Ahead: "ahead",
	InWork: "in work",
	Resting: "resting",
	Done: "done",
};

/** The kind's phases as they stand on this project; any can be changed. */
export function Phases({
	record,
	onTell,
}: {
	record: RecordDto;
	onTell: () => void;
}) {
	const act = useAct();
	const [arranging, setArranging] = useState(false);
	return (
		<Block
			title="Phases"
			aside={
				<Button kind="word" onClick={() => setArranging(true)}>
					arrange
				</Button>
			}
		>
			{arranging && (
				<ArrangePhases record={record} onClose={() => setArranging(false)} />
			)}
			{record.sheet.work.phases.map((phase) => (
				<div
					key={phase.name}
					className="flex items-baseline gap-2 py-[3px] text-[14.3px]"
				>
					<span
						className={`inline-block first-letter:uppercase ${phase.state === "InWork" ? "font-[650]" : ""}`}
					>
						{phase.name}
					</span>
					<span className="under mr-auto">{phase.since}</span>
					<Select
						label={phase.name}
						hidden
						bare
						value={phase.state}
						disabled={act.busy}
						onChange={(e) =>
							act.run(() =>
								answer(
									api.POST("/api/projects/{id}/phases", {
										params: { path: { id: record.id } },
										body: {
											phase: phase.name,
											state: e.target.value as PhaseState,
										},
									}),
								),
							)
						}
					>
						{Object.entries(phaseWords).map(([state, words]) => (
							<option key={state} value={state}>
								{words}
							</option>
						))}
					</Select>
				</div>
			))}
			<Refused of={act.refusal} />
			{record.path.booked && (
				<p className="pt-2">
					<Button size="small" onClick={onTell}>
						Tell how it goes
					</Button>
				</p>
			)}
		</Block>
	);
}
