import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { HoursDto, SheetTaskDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { DateField } from "../../ui/DateField";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";
import { useTakeOut } from "../useTakeOut";

type Tasks = readonly SheetTaskDto[];
type Said = { time: string; words: string; on: string; task: number | null };

const empty: Said = { time: "", words: "", on: "", task: null };

/** The task that hours go into; nothing where a project has none open. */
function OfTask({
	tasks,
	hidden,
	value,
	onChange,
}: {
	tasks: readonly { id: number; title: string }[];
	hidden?: boolean;
	value: number | null;
	onChange: (task: number | null) => void;
}) {
	if (tasks.length === 0) return null;
	return (
		<Select
			label="Task"
			hidden={hidden}
			value={value ?? ""}
			onChange={(e) => onChange(e.target.value ? Number(e.target.value) : null)}
		>
			<option value="">the project as a whole</option>
			{tasks.map((task) => (
				<option key={task.id} value={task.id}>
					{task.title}
				</option>
			))}
		</Select>
	);
}

const mine = (tasks: Tasks) =>
	tasks
		.filter((task) => !task.kept.isClients)
		.map((task) => ({ id: task.id, title: task.kept.title }));

/** Writes down work that was done: the time is enough. */
export function AddHours({
	project,
	tasks,
}: {
	project: number;
	tasks: Tasks;
}) {
	const [said, setSaid] = useState<Said>(empty);
	const act = useAct();
	async function add(event: FormEvent) {
		event.preventDefault();
		await act.run(async () => {
			await answer(
				api.POST("/api/projects/{id}/hours", {
					params: { path: { id: project } },
					body: { ...said, on: said.on || null },
				}),
			);
			// free for the next ones before the page has followed
			setSaid(empty);
		});
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
					<OfTask
						hidden
						tasks={mine(tasks)}
						value={said.task}
						onChange={(task) => setSaid({ ...said, task })}
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
	tasks,
	hours,
	onClose,
}: {
	project: number;
	tasks: Tasks;
	hours: HoursDto;
	onClose: () => void;
}) {
	const [said, setSaid] = useState<Said>({
		time: hours.time,
		words: hours.words,
		on: hours.on,
		task: hours.task?.id ?? null,
	});
	// a task that is done by now stays the one they went into
	const others = mine(tasks).filter((task) => task.id !== hours.task?.id);
	const act = useAct();
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
	const takeOut = useTakeOut(act, onClose);
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
					<OfTask
						tasks={hours.task ? [hours.task, ...others] : others}
						value={said.task}
						onChange={(task) => setSaid({ ...said, task })}
					/>
					<Refused of={act.refusal} />
					<div className="flex gap-2">
						<Button kind="go" type="submit" disabled={act.busy}>
							Keep the change
						</Button>
						<Button
							className="ml-auto"
							disabled={act.busy}
							onClick={() =>
								takeOut(hours.time, (removed) =>
									answer(
										api.POST("/api/projects/{id}/hours/{hours}/removed", {
											params,
											body: { removed },
										}),
									),
								)
							}
						>
							Take it out
						</Button>
					</div>
				</form>
			)}
		</Window>
	);
}
