import { type FormEvent, useState } from "react";
import { Alert, TextField } from "../ui/Fields";
import { post } from "../ui/http";
import { useAct } from "./useAct";

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
			post(`/api/letters/${letter}/later`, {
				until: `${until}:00`,
				subject: text?.subject ?? null,
				body: text?.body ?? null,
			}),
		);
		if (done) onDone();
	}
	return (
		<form onSubmit={put} className="flex flex-wrap items-end gap-2 pt-2.5">
			<TextField
				label="Ask me again"
				type="datetime-local"
				value={until}
				wrong={act.refusal?.of("until")}
				onChange={(e) => setUntil(e.target.value)}
			/>
			<button
				type="submit"
				className="btn"
				disabled={act.busy || until.length === 0}
			>
				Put it off
			</button>
			{act.refusal && !act.refusal.of("until") && (
				<Alert>{act.refusal.message}</Alert>
			)}
		</form>
	);
}
