import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { LeaveDto, LeaveState, LeaveTo } from "../../api/schema";
import { Button } from "../../ui/Button";
import { DateField } from "../../ui/DateField";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { TextArea } from "../../ui/TextArea";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";

/** What the client said of a leave elsewhere: by phone, in a letter. */
export function NoteLeave({
	project,
	leaves,
	onClose,
}: {
	project: number;
	leaves: readonly LeaveDto[];
	onClose: () => void;
}) {
	const [to, setTo] = useState<LeaveTo>("Show");
	const [state, setState] = useState<LeaveState>("Given");
	const [wording, setWording] = useState<string>();
	const [on, setOn] = useState("");
	const act = useAct();
	const leave = leaves.find((one) => one.to === to);
	async function keep(event: FormEvent) {
		event.preventDefault();
		const done = await act.run(() =>
			answer(
				api.POST("/api/projects/{id}/leave", {
					params: { path: { id: project } },
					body: { to, state, wording: wording ?? null, on: on || null },
				}),
			),
		);
		if (done) onClose();
	}
	return (
		<Window title="A leave, as they told you" open onClose={onClose}>
			<form onSubmit={keep} className="grid gap-3">
				<Select
					label="Leave to"
					value={to}
					onChange={(e) => setTo(e.target.value as LeaveTo)}
				>
					<option value="Show">show the work</option>
					<option value="Quote">quote them</option>
				</Select>
				<Select
					label="It is"
					value={state}
					wrong={act.refusal?.of("state")}
					onChange={(e) => setState(e.target.value as LeaveState)}
				>
					<option value="Given">given</option>
					<option value="Refused">refused</option>
					{leave?.state === "Given" && (
						<option value="Revoked">taken back</option>
					)}
				</Select>
				{state !== "Revoked" && (
					<TextArea
						label="In which words"
						rows={3}
						value={wording ?? leave?.wording ?? ""}
						wrong={act.refusal?.of("wording")}
						onChange={(e) => setWording(e.target.value)}
					/>
				)}
				<DateField
					label="On"
					hint="Today, unless you say otherwise"
					value={on}
					wrong={act.refusal?.of("on")}
					onChange={setOn}
				/>
				<Refused of={act.refusal} />
				<div>
					<Button kind="go" type="submit" disabled={act.busy}>
						Keep this
					</Button>
				</div>
			</form>
		</Window>
	);
}
