import { answer, api } from "../../api/client";
import type { RoutineRowDto } from "../../api/schema";
import { Refused } from "../../ui/Refused";
import { Tick } from "../../ui/Tick";
import { useAct } from "../useAct";

/** A routine is on, off by its owner's word, or kept off by what it lacks. */
export function OnOff({
	routine,
}: {
	routine: Pick<RoutineRowDto, "id" | "name" | "off" | "trouble">;
}) {
	const act = useAct();
	if (routine.trouble.length > 0)
		return <span className="font-[650]">kept off</span>;
	return (
		<>
			<Tick
				label={
					<>
						{routine.off ? "off" : "on"}
						<span className="sr-only">: {routine.name}</span>
					</>
				}
				checked={!routine.off}
				disabled={act.busy}
				onChange={(checked) =>
					act.run(() =>
						answer(
							api.POST("/api/routines/{id}/off", {
								params: { path: { id: routine.id } },
								body: {
									off: !checked,
								},
							}),
						),
					)
				}
			/>
			<Refused of={act.refusal} />
		</>
	);
}
