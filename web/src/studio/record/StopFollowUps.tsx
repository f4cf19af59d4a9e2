import { answer, api } from "../../api/client";
import type { GoOnDto, ProjectRoutinesDto, RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { useUndo } from "../../ui/Undo";
import { useAct } from "../useAct";

export function Stop({
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
			said = await answer(
				api.POST("/api/projects/{id}/go-on", {
					params: { path: { id: record.id } },
				}),
			);
		});
		if (said && said.missed.length > 0)
			offer({
				words: `Missed meanwhile and left: ${said.missed.join(", ")}`,
				stays: true,
			});
	};
	return (
		<span className="flex gap-3">
			{routines.toGoOn > 0 && (
				<Button kind="word" disabled={act.busy} onClick={goOn}>
					let {routines.toGoOn} go on
				</Button>
			)}
			{routines.pending > 0 && (
				<Button
					kind="word"
					disabled={act.busy}
					onClick={async () => {
						if (
							await act.run(() =>
								answer(
									api.POST("/api/projects/{id}/stop-pending", {
										params: { path: { id: record.id } },
									}),
								),
							)
						)
							offer({ words: "Everything pending is stopped", undo: goOn });
					}}
				>
					stop all {routines.pending}
				</Button>
			)}
			<Refused of={act.refusal} />
		</span>
	);
}
