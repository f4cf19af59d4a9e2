import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { RecordDto, SheetTaskDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { DateField } from "../../ui/DateField";
import { Fold } from "../../ui/Fold";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { Tip } from "../../ui/Tip";
import { useUndo } from "../../ui/Undo";
import { Window } from "../../ui/Window";
import { FulfilmentSelect, fulfilments } from "../FulfilmentSelect";
import { useAct } from "../useAct";
import { useTaskDone } from "../useTaskDone";
import { AddList } from "./AddList";
import { Block } from "./Block";

/** Open tasks of the project: ticked, written down, changed. */
export function Tasks({ record }: { record: RecordDto }) {
	const { done } = useTaskDone(record.id);
	const [changing, setChanging] = useState<SheetTaskDto>();
	const [adding, setAdding] = useState(false);
	return (
		<Block
			title="Open tasks"
			aside={
				<Button kind="word" onClick={() => setAdding(true)}>
					add a list
				</Button>
			}
		>
			{adding && <AddList record={record} onClose={() => setAdding(false)} />}
			{record.sheet.tasks.map((task) => (
				<div key={task.id} className="flex gap-2.5 py-[3px] text-[14.3px]">
					<Tick
						hidden
						label={`${task.title} is done`}
						checked={false}
						onChange={() => done(task.id, task.title)}
					/>
					<Tip
						words={[
							task.counted,
							task.doneBy && `done when ${fulfilments[task.doneBy]}`,
						]
							.filter(Boolean)
							.join("; ")}
					>
						<Button
							kind="line"
							className="hover:underline"
							onClick={() => setChanging(task)}
						>
							{task.title}
						</Button>
					</Tip>
					<span
						className={`ml-auto whitespace-nowrap ${task.late ? "font-[650]" : "text-soft"}`}
					>
						{task.due}
					</span>
				</div>
			))}
			<AddTask project={record.id} />
			<DoneTasks record={record} />
			{changing && (
				<ChangeTask
					key={changing.id}
					record={record}
					task={changing}
					onClose={() => setChanging(undefined)}
				/>
			)}
		</Block>
	);
}

/** What is ticked off already; the tick is taken away again. */
function DoneTasks({ record }: { record: RecordDto }) {
	const { mark } = useTaskDone(record.id);
	const { doneTasks } = record.sheet;
	if (doneTasks.length === 0) return null;
	return (
		<Fold className="pt-1.5 text-soft" line={`${doneTasks.length} done`}>
			{doneTasks.map((task) => (
				<div key={task.id} className="flex gap-2.5 py-[3px] text-[14.3px]">
					<Tick
						hidden
						label={`${task.title} is done`}
						checked
						onChange={() => mark(task.id, false)}
					/>
					{task.title}
					<span className="ml-auto whitespace-nowrap">{task.done}</span>
				</div>
			))}
		</Fold>
	);
}

function AddTask({ project }: { project: number }) {
	const [title, setTitle] = useState("");
	const [due, setDue] = useState("");
	const act = useAct();
	async function add(event: FormEvent) {
		event.preventDefault();
		const kept = await act.run(() =>
			answer(
				api.POST("/api/projects/{id}/tasks", {
					params: { path: { id: project } },
					body: {
						title,
						due: due || null,
						phase: null,
					},
				}),
			),
		);
		if (!kept) return;
		setTitle("");
		setDue("");
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

function ChangeTask({
	record,
	task,
	onClose,
}: {
	record: RecordDto;
	task: SheetTaskDto;
	onClose: () => void;
}) {
	const [title, setTitle] = useState(task.title);
	const [due, setDue] = useState(task.day ?? "");
	const [phase, setPhase] = useState(task.phase ?? "");
	const [doneBy, setDoneBy] = useState(task.doneBy);
	const act = useAct();
	const offer = useUndo();
	const params = { path: { id: record.id, task: task.id } };
	async function save(event: FormEvent) {
		event.preventDefault();
		const to = { title, due: due || null, phase: phase || null, doneBy };
		if (
			await act.run(() =>
				answer(
					api.PUT("/api/projects/{id}/tasks/{task}", { params, body: to }),
				),
			)
		)
			onClose();
	}
	async function takeOut() {
		const set = (removed: boolean) =>
			act.run(() =>
				answer(
					api.POST("/api/projects/{id}/tasks/{task}/removed", {
						params,
						body: { removed },
					}),
				),
			);
		if (!(await set(true))) return;
		offer({ words: `Taken out: ${task.title}`, undo: () => set(false) });
		onClose();
	}
	return (
		<Window title="Change the task" open onClose={onClose}>
			<form onSubmit={save} className="grid gap-3">
				<TextField
					label="Task"
					value={title}
					wrong={act.refusal?.of("title")}
					onChange={(e) => setTitle(e.target.value)}
				/>
				<DateField
					label="Day"
					hint={
						task.counted
							? `counted: ${task.counted}; a day set by hand is asked about when the date moves`
							: undefined
					}
					value={due}
					wrong={act.refusal?.of("due")}
					onChange={(day) => setDue(day)}
				/>
				{record.sheet.work.phases.length > 0 && (
					<Select
						label="Phase"
						value={phase}
						wrong={act.refusal?.of("phase")}
						onChange={(e) => setPhase(e.target.value)}
					>
						<option value="">none</option>
						{record.sheet.work.phases.map((one) => (
							<option key={one.name}>{one.name}</option>
						))}
					</Select>
				)}
				<FulfilmentSelect value={doneBy} onChange={setDoneBy} />
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
		</Window>
	);
}
