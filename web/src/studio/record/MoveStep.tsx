import { type FormEvent, useState } from "react";
import type { AheadDto, AheadStepDto } from "../../api/schema";
import { Alert, TextField } from "../../ui/Fields";
import { post } from "../../ui/http";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";

/** Fixes a planned step to a day and time by hand, or lets it be counted again. */
export function MoveStep({
	project,
	entry,
	step,
	onClose,
}: {
	project: number;
	entry: AheadDto;
	step: AheadStepDto;
	onClose: () => void;
}) {
	const [at, setAt] = useState(step.at?.slice(0, 16) ?? "");
	const act = useAct();
	const set = (when: string | null) =>
		act.run(() =>
			post(`/api/projects/${project}/steps`, {
				run: step.run,
				step: step.step,
				occurrence: step.occurrence,
				at: when,
			}),
		);
	async function save(event: FormEvent) {
		event.preventDefault();
		if (await set(`${at}:00`)) onClose();
	}
	return (
		<Window title={entry.title} open onClose={onClose}>
			<form onSubmit={save} className="grid gap-3">
				<p className="text-soft">{entry.detail}</p>
				<TextField
					label="Goes out on"
					type="datetime-local"
					hint="set by hand, it stays when the date moves, unless you say otherwise then"
					value={at}
					wrong={act.refusal?.of("at")}
					onChange={(e) => setAt(e.target.value)}
				/>
				{act.refusal && <Alert>{act.refusal.message}</Alert>}
				<div className="flex gap-2">
					<button
						type="submit"
						className="btn btn-go"
						disabled={!at || act.busy}
					>
						Set the day
					</button>
					{step.fixed && (
						<button
							type="button"
							className="btn"
							disabled={act.busy}
							onClick={async () => {
								if (await set(null)) onClose();
							}}
						>
							Count it again
						</button>
					)}
				</div>
			</form>
		</Window>
	);
}
