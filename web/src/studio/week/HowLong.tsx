import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { TextField } from "../../ui/TextField";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";
import type { Moved } from "./useTaskDay";

/** Asks how long a task takes. */
export function HowLong({
	task,
	onClose,
}: {
	task: Moved & { estimate: string };
	onClose: () => void;
}) {
	const [estimate, setEstimate] = useState(task.estimate);
	const act = useAct();
	async function keep(event: FormEvent) {
		event.preventDefault();
		const kept = await act.run(() =>
			answer(
				api.POST("/api/projects/{id}/tasks/{task}/estimate", {
					params: { path: { id: task.project, task: task.id } },
					body: { estimate },
				}),
			),
		);
		if (kept) onClose();
	}
	return (
		<Window title={task.title} open onClose={onClose}>
			<form onSubmit={keep} className="grid gap-3">
				<TextField
					label="How long will it take?"
					hint="3 h, 45 min; empty where it cannot be said"
					value={estimate}
					wrong={act.refusal?.of("estimate")}
					onChange={(e) => setEstimate(e.target.value)}
				/>
				<Refused of={act.refusal} />
				<div>
					<Button kind="go" type="submit" disabled={act.busy}>
						Keep
					</Button>
				</div>
			</form>
		</Window>
	);
}
