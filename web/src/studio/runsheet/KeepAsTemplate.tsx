import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { RunItemDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { TextField } from "../../ui/TextField";
import { useUndo } from "../../ui/Undo";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";

/** Keeps a run sheet under a name, to be laid on other dates. */
export function KeepAsTemplate({
	items,
	onClose,
}: {
	items: readonly RunItemDto[];
	onClose: () => void;
}) {
	const [name, setName] = useState("");
	const act = useAct();
	const offer = useUndo();
	async function keep(event: FormEvent) {
		event.preventDefault();
		await act.run(async () => {
			const { key } = await answer(
				api.POST("/api/run-sheets", {
					body: { name, edition: 0, items: [...items] },
				}),
			);
			offer({
				words: `Kept under Templates: ${name}`,
				undo: () =>
					act.run(() =>
						answer(
							api.POST("/api/run-sheets/{key}/removed", {
								params: { path: { key } },
								body: { removed: true },
							}),
						),
					),
			});
			onClose();
		});
	}
	return (
		<Window title="Keep it to lay again" open onClose={onClose}>
			<form onSubmit={keep} className="grid gap-3">
				<TextField
					label="Name"
					value={name}
					wrong={act.refusal?.of("name")}
					onChange={(e) => setName(e.target.value)}
				/>
				<Refused of={act.refusal} />
				<div>
					<Button kind="go" type="submit" disabled={act.busy}>
						Keep it
					</Button>
				</div>
			</form>
		</Window>
	);
}
