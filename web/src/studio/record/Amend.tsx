import { useNavigate } from "react-router";
import { answer, api } from "../../api/client";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { useAct } from "../useAct";

/** Begins a change of what is agreed, with its own signature. */
export function Amend({ project }: { project: number }) {
	const navigate = useNavigate();
	const act = useAct();
	async function begin() {
		if (
			await act.run(() =>
				answer(
					api.POST("/api/projects/{id}/proposal/amend", {
						params: { path: { id: project } },
					}),
				),
			)
		)
			navigate(`/projects/${project}/proposal`);
	}
	return (
		<div className="pt-1 pb-2">
			<Button size="small" disabled={act.busy} onClick={begin}>
				Write an amendment
			</Button>
			<Refused of={act.refusal} />
		</div>
	);
}
