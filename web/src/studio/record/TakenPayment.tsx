import { answer, api } from "../../api/client";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { useAct } from "../useAct";

/** A payment that was recorded by mistake. */
export function Taken({
	project,
	payment,
	onDone,
}: {
	project: number;
	payment: number;
	onDone: () => void;
}) {
	const act = useAct();
	return (
		<div className="grid gap-2 pt-2">
			<p className="text-soft">
				Recorded by mistake? Taken back, it counts nowhere any more; reminders
				that are still ahead go on, those missed meanwhile do not go out.
			</p>
			<Refused of={act.refusal} />
			<div>
				<Button
					disabled={act.busy}
					onClick={async () => {
						if (
							await act.run(() =>
								answer(
									api.POST("/api/projects/{id}/payments/{payment}/void", {
										params: { path: { id: project, payment } },
									}),
								),
							)
						)
							onDone();
					}}
				>
					Take this payment back
				</Button>
			</div>
		</div>
	);
}
