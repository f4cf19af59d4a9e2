import { useEffect, useState } from "react";
import { answer, api } from "../../api/client";
import type { CheckedRoutineDto, RoutineDraftDto } from "../../api/schema";

/** Asks the server what it reads like and what is wrong, a moment after the last key. */
export function useChecked(
	kind: number,
	routine: RoutineDraftDto,
	project?: number,
) {
	const [checked, setChecked] = useState<CheckedRoutineDto>();
	useEffect(() => {
		const timer = setTimeout(
			() =>
				answer(
					api.POST("/api/routines/check", {
						body: {
							kind,
							routine,
							project: project ?? null,
						},
					}),
				).then(setChecked, () => undefined),
			150,
		);
		return () => clearTimeout(timer);
	}, [kind, routine, project]);
	return checked;
}
