import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import { Button } from "../../ui/Button";
import { MomentField } from "../../ui/MomentField";
import { Refused } from "../../ui/Refused";
import { useAct } from "../useAct";

/** Puts a held letter off to a day and time; it comes up again then, as it is. */
export function Later({
	letter,
	text,
	onDone,
}: {
	letter: number;
	text?: { subject: string; body: string };
	onDone: () => void;
}) {
	const [until, setUntil] = useState("");
	const act = useAct();
	async function put(event: FormEvent) {
		event.preventDefault();
		const done = await act.run(() =>
			answer(
				api.POST("/api/letters/{id}/later", {
					params: { path: { id: letter } },
					body: {
						until: until,
						subject: text?.subject ?? null,
						body: text?.body ?? null,
					},
				}),
			),
		);
		if (done) onDone();
	}
	return (
		<form onSubmit={put} className="flex flex-wrap items-end gap-2 pt-2.5">
			<MomentField
				label="Ask me again"
				value={until}
				wrong={act.refusal?.of("until")}
				onChange={(at) => setUntil(at)}
			/>
			<Button type="submit" disabled={act.busy || until.length === 0}>
				Put it off
			</Button>
			<Refused of={act.refusal} />
		</form>
	);
}
