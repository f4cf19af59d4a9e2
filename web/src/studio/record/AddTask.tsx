import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import { Button } from "../../ui/Button";
import { DateField } from "../../ui/DateField";
import { Refused } from "../../ui/Refused";
import { TextField } from "../../ui/TextField";
import { useAct } from "../useAct";

/** Writes a task down: its words are enough, all else can be said later. */
export function AddTask({ project }: { project: number }) {
	const [title, setTitle] = useState("");
	const [due, setDue] = useState("");
	const act = useAct();
	async function add(event: FormEvent) {
		event.preventDefault();
		await act.run(async () => {
			await answer(
				api.POST("/api/projects/{id}/tasks", {
					params: { path: { id: project } },
					body: { title, due: due || null, phase: null },
				}),
			);
			// free for the next one before the page has followed
			setTitle("");
			setDue("");
		});
	}
	return (
		<form onSubmit={add} className="flex flex-wrap items-end gap-2 pt-1.5">
			<div className="min-w-32 flex-1">
				<TextField
					label="Add a task"
					hidden
					placeholder="Add a task"
					value={title}
					wrong={act.refusal?.of("title")}
					onChange={(e) => setTitle(e.target.value)}
				/>
			</div>
			{title.trim() && (
				<>
					<DateField
						label="Its day"
						hidden
						value={due}
						wrong={act.refusal?.of("due")}
						onChange={(day) => setDue(day)}
					/>
					<Button kind="go" type="submit" disabled={act.busy}>
						Keep the task
					</Button>
				</>
			)}
			<Refused of={act.refusal} />
		</form>
	);
}
