import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { HoursDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { DateField } from "../../ui/DateField";
import { Refused } from "../../ui/Refused";
import { TextField } from "../../ui/TextField";
import { useUndo } from "../../ui/Undo";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";

/** Writes down work that was done: the time is enough. */
export function AddHours({ project }: { project: number }) {
	const empty = { time: "", words: "", on: "" };
	const [said, setSaid] = useState(empty);
	const act = useAct();
	async function add(event: FormEvent) {
		event.preventDefault();
		const kept = await act.run(() =>
			answer(
				api.POST("/api/projects/{id}/hours", {
					params: { path: { id: project } },
					body: { ...said, on: said.on || null },
				}),
			),
		);
		if (kept) setSaid(empty);
	}
	return (
		<form onSubmit={add} className="flex flex-wrap items-start gap-2 pt-1.5">
			<div className="w-28">
				<TextField
					label="Time worked"
					hidden
					placeholder="2.5, 1:30"
					value={said.time}
					wrong={act.refusal?.of("time")}
					onChange={(e) => setSaid({ ...said, time: e.target.value })}
				/>
			</div>
			<div className="min-w-32 flex-1">
				<TextField
					label="What was done"
					hidden
					placeholder="Hours: what was done"
					value={said.words}
					wrong={act.refusal?.of("words")}
					onChange={(e) => setSaid({ ...said, words: e.target.value })}
				/>
			</div>
			{(said.time || said.words).trim() && (
				<>
					<DateField
						label="Day"
						hidden
						back
						hint="left empty, today"
						value={said.on}
						wrong={act.refusal?.of("on")}
						onChange={(on) => setSaid({ ...said, on })}
					/>
					<Button kind="go" type="submit" disabled={act.busy}>
						Keep the hours
					</Button>
				</>
			)}
			<Refused of={act.refusal} />
		</form>
	);
}

/** Changes hours that are not charged yet, or takes them out. */
export function ChangeHours({
	project,
	hours,
	onClose,
}: {
	project: number;
	hours: HoursDto;
	onClose: () => void;
}) {
	const [said, setSaid] = useState({
		time: hours.time,
		words: hours.words,
		on: hours.on,
	});
	const act = useAct();
	const offer = useUndo();
	const params = { path: { id: project, hours: hours.id } };
	async function keep(event: FormEvent) {
		event.preventDefault();
		const kept = await act.run(() =>
			answer(
				api.PUT("/api/projects/{id}/hours/{hours}", {
					params,
					body: { ...said, on: said.on || null },
				}),
			),
		);
		if (kept) onClose();
	}
	async function takeOut() {
		const set = (removed: boolean) =>
			act.run(() =>
				answer(
					api.POST("/api/projects/{id}/hours/{hours}/removed", {
						params,
						body: { removed },
					}),
				),
			);
		if (!(await set(true))) return;
		offer({ words: `Taken out: ${hours.time}`, undo: () => set(false) });
		onClose();
	}
	return (
		<Window title="Hours" open onClose={onClose}>
			{hours.charged ? (
				<p>
					{hours.time} on {hours.day}: charged {hours.charged}. What is charged
					stays as it is.
				</p>
			) : (
				<form onSubmit={keep} className="grid gap-3">
					<TextField
						label="Time worked"
						hint="2.5, 1:30 or 90 min"
						value={said.time}
						wrong={act.refusal?.of("time")}
						onChange={(e) => setSaid({ ...said, time: e.target.value })}
					/>
					<TextField
						label="What was done"
						value={said.words}
						wrong={act.refusal?.of("words")}
						onChange={(e) => setSaid({ ...said, words: e.target.value })}
					/>
					<DateField
						label="Day"
						back
						value={said.on}
						wrong={act.refusal?.of("on")}
						onChange={(on) => setSaid({ ...said, on })}
					/>
					<Refused of={act.refusal} />
					<div className="flex gap-2">
						<Button kind="go" type="submit" disabled={act.busy}>
							Keep the change
						</Button>
						<Button className="ml-auto" disabled={act.busy} onClick={takeOut}>
							Take it out
						</Button>
					</div>
				</form>
			)}
		</Window>
	);
}
