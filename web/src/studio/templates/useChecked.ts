import { useEffect, useState } from "react";
import type { CheckedRoutineDto, RoutineDraftDto } from "../../api/schema";
import { post } from "../../ui/http";

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
				post<CheckedRoutineDto>("/api/routines/check", {
					kind,
					routine,
					project: project ?? null,
				}).then(setChecked, () => undefined),
			150,
		);
		return () => clearTimeout(timer);
	}, [kind, routine, project]);
	return checked;
}
