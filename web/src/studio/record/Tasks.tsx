import { type FormEvent, useState } from "react";
import type { RecordDto, SheetTaskDto } from "../../api/schema";
import { Alert, Select, TextField } from "../../ui/Fields";
import { post, put } from "../../ui/http";
import { useUndo } from "../../ui/Undo";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";
import { useTaskDone } from "../useTaskDone";
import { AddList } from "./AddList";
import { Block } from "./Block";

/** Open tasks of the project: ticked, written down, changed. */
export function Tasks({ record }: { record: RecordDto }) {
	const done = useTaskDone(record.id);
	const [changing, setChanging] = useState<SheetTaskDto>();
	const [adding, setAdding] = useState(false);
	return (
		<Block
			title="Open tasks"
			aside={
				<button type="button" className="link" onClick={() => setAdding(true)}>
					add a list
				</button>
			}
		>
			{adding && <AddList record={record} onClose={() => setAdding(false)} />}
			{record.tasks.map((task) => (
				<div key={task.id} className="flex gap-2.5 py-[3px] text-[14.3px]">
					<input
						type="checkbox"
						aria-label={`${task.title} is done`}
						className="mt-1 size-3.5 accent-(--ink)"
						onChange={() => done(task.id, task.title)}
					/>
					<button
						type="button"
						className="text-left hover:underline"
						title={task.counted ?? undefined}
						onClick={() => setChanging(task)}
					>
						{task.title}
					</button>
					<span
						className={`ml-auto whitespace-nowrap ${task.late ? "font-[650]" : "text-soft"}`}
					>
						{task.due}
					</span>
				</div>
			))}
			<AddTask project={record.id} />
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

function AddTask({ project }: { project: number }) {
	const [title, setTitle] = useState("");
	const [due, setDue] = useState("");
	const act = useAct();
	async function add(event: FormEvent) {
		event.preventDefault();
		const kept = await act.run(() =>
			post(`/api/projects/${project}/tasks`, {
				title,
				due: due || null,
				phase: null,
			}),
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
					<TextField
						label="Its day"
						hidden
						type="date"
						value={due}
						onChange={(e) => setDue(e.target.value)}
					/>
					<button type="submit" className="btn btn-go" disabled={act.busy}>
						Keep the task
					</button>
				</>
			)}
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
	const act = useAct();
	const offer = useUndo();
	const address = `/api/projects/${record.id}/tasks/${task.id}`;
	async function save(event: FormEvent) {
		event.preventDefault();
		const to = { title, due: due || null, phase: phase || null };
		if (await act.run(() => put(address, to))) onClose();
	}
	async function takeOut() {
		const set = (removed: boolean) =>
			act.run(() => post(`${address}/removed`, { removed }));
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
				<TextField
					label="Day"
					type="date"
					hint={
						task.counted
							? `counted: ${task.counted}; a day set by hand is asked about when the date moves`
							: undefined
					}
					value={due}
					wrong={act.refusal?.of("due")}
					onChange={(e) => setDue(e.target.value)}
				/>
				{record.phases.length > 0 && (
					<Select
						label="Phase"
						value={phase}
						wrong={act.refusal?.of("phase")}
						onChange={(e) => setPhase(e.target.value)}
					>
						<option value="">none</option>
						{record.phases.map((one) => (
							<option key={one.name}>{one.name}</option>
						))}
					</Select>
				)}
				{act.refusal && <Alert>{act.refusal.message}</Alert>}
				<div className="flex gap-2">
					<button type="submit" className="btn btn-go" disabled={act.busy}>
						Keep the change
					</button>
					<button
						type="button"
						className="btn ml-auto"
						disabled={act.busy}
						onClick={takeOut}
					>
						Take it out
					</button>
				</div>
			</form>
		</Window>
	);
}
