import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { PersonPageDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Tick } from "../../ui/Tick";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";
import { PersonFields } from "./EditPerson";

/** Some of the projects are somebody else's. */
export function Split({
	person,
	onClose,
}: {
	person: PersonPageDto;
	onClose: () => void;
}) {
	const [projects, setProjects] = useState<number[]>([]);
	const [other, setOther] = useState({
		...person.details,
		name: "",
		greeted: null,
		edition: 0,
	});
	const act = useAct();
	async function split(event: FormEvent) {
		event.preventDefault();
		const done = await act.run(() =>
			answer(
				api.POST("/api/people/{id}/split", {
					params: { path: { id: person.id } },
					body: { projects, person: other },
				}),
			),
		);
		if (done) onClose();
	}
	return (
		<Window title="These are two people" open onClose={onClose} wide>
			<form onSubmit={split} className="grid gap-3">
				<fieldset>
					<legend className="label">
						Projects that are somebody else's; links of {person.details.name} to
						them open nothing any more
					</legend>
					{person.projects
						.filter((one) => !one.part)
						.map((one) => (
							<Tick
								key={one.id}
								label={one.title}
								className="py-0.5"
								checked={projects.includes(one.id)}
								onChange={(checked) =>
									setProjects(
										checked
											? [...projects, one.id]
											: projects.filter((id) => id !== one.id),
									)
								}
							/>
						))}
				</fieldset>
				<PersonFields
					person={other}
					wrong={(field) => act.refusal?.of(field)}
					onChange={(next) => setOther(next as typeof other)}
				/>
				<Refused of={act.refusal} />
				<Button kind="go" type="submit" disabled={act.busy}>
					Take them apart
				</Button>
			</form>
		</Window>
	);
}
