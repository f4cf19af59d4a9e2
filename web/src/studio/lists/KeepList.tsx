import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { OwnListDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { TextField } from "../../ui/TextField";
import { useUndo } from "../../ui/Undo";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";

/** Keeps it under a name among the templates. */
export function KeepList({
	own,
	onClose,
}: {
	own: OwnListDto;
	onClose: () => void;
}) {
	const [name, setName] = useState(own.list.name);
	const act = useAct();
	const offer = useUndo();
	const keep = (event: FormEvent) => {
		event.preventDefault();
		act.run(async () => {
			const { id } = await answer(
				api.POST("/api/lists/{list}/kept", {
					params: { path: { list: own.list.id } },
					body: { name },
				}),
			);
			offer({
				words: `Kept under Templates: ${name}`,
				undo: () =>
					act.run(() =>
						answer(
							api.POST("/api/lists/{list}/removed", {
								params: { path: { list: id } },
								body: { removed: true },
							}),
						),
					),
			});
			onClose();
		});
	};
	return (
		<Window title="Keep it to lay again" open onClose={onClose}>
			<form onSubmit={keep} className="grid gap-3">
				<TextField
					label="Name"
					value={name}
					wrong={act.refusal?.of("name")}
					onChange={(e) => setName(e.target.value)}
				/>
				<p className="under">
					What is struck out is left behind
					{own.list.sort === "Rows" && ", and so are its dates"}.
				</p>
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
