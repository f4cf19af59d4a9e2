import { Link, useNavigate } from "react-router";
import { answer, api } from "../../api/client";
import type { RoutinePageDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { useUndo } from "../../ui/Undo";
import { useAct } from "../useAct";

export function PageActs({ page }: { page: RoutinePageDto }) {
	const act = useAct();
	const offer = useUndo();
	const navigate = useNavigate();
	const remove = (removed: boolean) =>
		act.run(() =>
			answer(
				api.POST("/api/routines/{id}/removed", {
					params: { path: { id: page.id } },
					body: { removed },
				}),
			),
		);
	return (
		<span className="ml-auto flex flex-wrap gap-2">
			<Button asChild>
				<Link to={`/templates/rehearsals?routine=${page.id}`}>Rehearse it</Link>
			</Button>
			<Button asChild>
				<a href={`/api/routines/${page.id}.txt`}>Keep as a file</a>
			</Button>
			<Button
				disabled={act.busy}
				onClick={async () => {
					if (await remove(true)) {
						offer({
							words: `“${page.routine.name}” taken away. Its runs go on.`,
							undo: () => remove(false),
						});
						navigate("/templates/routines");
					}
				}}
			>
				Take it away
			</Button>
			<Refused of={act.refusal} />
		</span>
	);
}
