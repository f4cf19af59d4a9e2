import { useState } from "react";
import { answer, api } from "../../api/client";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { TextArea } from "../../ui/TextArea";
import { useUndo } from "../../ui/Undo";
import { useKept } from "../../ui/useKept";
import { useAct } from "../useAct";

/** The owner's own words: read, written otherwise, taken out. */
export function ChangeNote({
	project,
	note,
	text,
	onClose,
}: {
	project: number;
	note: number;
	text: string;
	onClose: () => void;
}) {
	const [changing, setChanging] = useState(false);
	const [words, change, forget] = useKept(`note:${note}`, text);
	const act = useAct();
	const offer = useUndo();
	const params = { path: { id: project, note } };
	const set = (removed: boolean) =>
		act.run(() =>
			answer(
				api.POST("/api/projects/{id}/notes/{note}/removed", {
					params,
					body: { removed },
				}),
			),
		);
	async function keep() {
		const kept = await act.run(() =>
			answer(
				api.PUT("/api/projects/{id}/notes/{note}", {
					params,
					body: { text: words },
				}),
			),
		);
		if (!kept) return;
		forget();
		setChanging(false);
	}
	const pin = (pinned: boolean) =>
		answer(
			api.POST("/api/projects/{id}/notes/{note}/pinned", {
				params,
				body: { pinned },
			}),
		);
	async function pinToToday() {
		if (await act.run(() => pin(true)))
			offer({
				words: "The note stands on Today",
				undo: () => act.run(() => pin(false)),
			});
	}
	async function takeOut() {
		if (!(await set(true))) return;
		offer({ words: "Taken out: the note", undo: () => set(false) });
		onClose();
	}
	return (
		<div className="grid gap-3">
			{changing ? (
				<TextArea
					label="The note"
					autoFocus
					rows={8}
					value={words}
					wrong={act.refusal?.of("words")}
					onChange={(e) => change(e.target.value)}
				/>
			) : (
				<div className="whitespace-pre-line">{text}</div>
			)}
			<Refused of={act.refusal} />
			<div className="flex gap-2">
				{changing ? (
					<Button kind="go" disabled={act.busy} onClick={keep}>
						Keep the note
					</Button>
				) : (
					<Button onClick={() => setChanging(true)}>Change it</Button>
				)}
				<Button disabled={act.busy} onClick={pinToToday}>
					Pin to Today
				</Button>
				<Button className="ml-auto" disabled={act.busy} onClick={takeOut}>
					Take it out
				</Button>
			</div>
		</div>
	);
}
