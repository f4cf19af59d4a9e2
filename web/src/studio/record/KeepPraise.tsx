import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { PraiseDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { DateField } from "../../ui/DateField";
import { Refused } from "../../ui/Refused";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";
import { useTakeOut } from "../useTakeOut";

/** Keeps words that pleased, or changes what was kept. */
export function KeepPraise({
	project,
	praise,
	onClose,
}: {
	project: number;
	praise?: PraiseDto;
	onClose: () => void;
}) {
	const [words, setWords] = useState(praise?.words ?? "");
	const [who, setWho] = useState(praise?.who);
	const [on, setOn] = useState(praise?.on ?? "");
	const act = useAct();
	const takeOut = useTakeOut(act, onClose);
	async function keep(event: FormEvent) {
		event.preventDefault();
		const body = { words, who: who ?? null, on: on || null };
		const done = await act.run(() =>
			praise
				? answer(
						api.PUT("/api/projects/{id}/praise/{praise}", {
							params: { path: { id: project, praise: praise.id } },
							body,
						}),
					)
				: answer(
						api.POST("/api/projects/{id}/praise", {
							params: { path: { id: project } },
							body,
						}),
					),
		);
		if (done) onClose();
	}
	return (
		<Window title="Praise" open onClose={onClose}>
			<form onSubmit={keep} className="grid gap-3">
				<TextArea
					label="What was said"
					hint="In their words"
					rows={5}
					value={words}
					wrong={act.refusal?.of("words")}
					onChange={(e) => setWords(e.target.value)}
				/>
				<TextField
					label="Who said it"
					hint={praise ? undefined : "The client, unless you say otherwise"}
					value={who ?? ""}
					wrong={act.refusal?.of("who")}
					onChange={(e) => setWho(e.target.value || undefined)}
				/>
				<DateField
					label="On"
					value={on}
					wrong={act.refusal?.of("on")}
					onChange={setOn}
				/>
				<Refused of={act.refusal} />
				<div className="flex gap-2">
					<Button kind="go" type="submit" disabled={act.busy}>
						{praise ? "Keep the change" : "Keep it"}
					</Button>
					{praise && (
						<Button
							className="ml-auto"
							disabled={act.busy}
							onClick={() =>
								takeOut("the praise", (removed) =>
									answer(
										api.POST("/api/projects/{id}/praise/{praise}/removed", {
											params: { path: { id: project, praise: praise.id } },
											body: { removed },
										}),
									),
								)
							}
						>
							Take it out
						</Button>
					)}
				</div>
			</form>
		</Window>
	);
}
