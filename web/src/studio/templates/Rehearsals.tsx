import type { KindDto } from "../../api/schema";
import { Projects } from "./ProjectRehearsals";
import { Routine } from "./RoutineRehearsals";

/** Trying things out: a routine played through, or a whole project that counts nowhere. */
export function Rehearsals({ kinds }: { kinds: readonly KindDto[] }) {
	return (
		<div className="grid content-start gap-8">
			<h2 className="text-[19px]">Rehearsals</h2>
			<Routine />
			<Projects kinds={kinds} />
		</div>
	);
}
