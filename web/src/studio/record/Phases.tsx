import type { PhaseState, RecordDto } from "../../api/schema";
import { Alert } from "../../ui/Fields";
import { post } from "../../ui/http";
import { useAct } from "../useAct";
import { Block } from "./Block";

export const phaseWords: Record<PhaseState, string> = {
	Ahead: "ahead",
	InWork: "in work",
	Resting: "resting",
	Done: "done",
};

/** The kind's phases as they stand on this project; any can be changed. */
export function Phases({ record }: { record: RecordDto }) {
	const act = useAct();
	return (
		<Block title="Phases">
			{record.phases.map((phase) => (
				<label
					key={phase.name}
					className="flex items-baseline gap-2 py-[3px] text-[14.3px]"
				>
					<span
						className={`inline-block first-letter:uppercase ${phase.state === "InWork" ? "font-[650]" : ""}`}
					>
						{phase.name}
					</span>
					<span className="under">{phase.since}</span>
					<select
						className="ml-auto border-0 bg-transparent text-right text-small text-ink"
						value={phase.state}
						disabled={act.busy}
						onChange={(e) =>
							act.run(() =>
								post(`/api/projects/${record.id}/phases`, {
									phase: phase.name,
									state: e.target.value,
								}),
							)
						}
					>
						{Object.entries(phaseWords).map(([state, words]) => (
							<option key={state} value={state}>
								{words}
							</option>
						))}
					</select>
				</label>
			))}
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
		</Block>
	);
}
