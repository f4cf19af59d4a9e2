import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { AheadDto, AheadStepDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { MomentField } from "../../ui/MomentField";
import { Refused } from "../../ui/Refused";
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
	const [at, setAt] = useState(step.at ?? "");
	const act = useAct();
	const set = (when: string | null) =>
		act.run(() =>
			answer(
				api.POST("/api/projects/{id}/steps", {
					params: { path: { id: project } },
					body: {
						run: step.run,
						step: step.step,
						occurrence: step.occurrence,
						at: when,
					},
				}),
			),
		);
	async function save(event: FormEvent) {
		event.preventDefault();
		if (await set(at)) onClose();
	}
	return (
		<Window title={entry.title} open onClose={onClose}>
			<form onSubmit={save} className="grid gap-3">
				<p className="text-soft">{entry.detail}</p>
				<MomentField
					label="Goes out on"
					hint="set by hand, it stays when the date moves, unless you say otherwise then"
					value={at}
					wrong={act.refusal?.of("at")}
					onChange={(at) => setAt(at)}
				/>
				<Refused of={act.refusal} />
				<div className="flex gap-2">
					<Button kind="go" type="submit" disabled={!at || act.busy}>
						Set the day
					</Button>
					{step.fixed && (
						<Button
							disabled={act.busy}
							onClick={async () => {
								if (await set(null)) onClose();
							}}
						>
							Count it again
						</Button>
					)}
				</div>
			</form>
		</Window>
	);
}
