import { useState } from "react";
import type { RecordDto, SheetTaskDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Fold } from "../../ui/Fold";
import { Tick } from "../../ui/Tick";
import { useKept } from "../../ui/useKept";
import { useTaskDone } from "../useTaskDone";
import { AddList } from "./AddList";
import { AddTask } from "./AddTask";
import { Block } from "./Block";
import { ChangeTask } from "./ChangeTask";
import { TaskLine } from "./TaskLine";

/** The tasks of the project, the owner's by their lists and the client's apart: ticked, written down, changed. */
export function Tasks({ record }: { record: RecordDto }) {
	const [changing, setChanging] = useState<number>();
	const [adding, setAdding] = useState(false);
	const [order, setOrder] = useKept("tasks:order", "due");
	const { open, progress } = record.sheet.tasks;
	const offered = order === "offered";
	const inOrder = offered
		? [...open].sort((a, b) => a.offered - b.offered)
		: open;
	const mine = inOrder.filter((task) => !task.kept.isClients);
	const theirs = inOrder.filter((task) => task.kept.isClients);
	const changed = open.find((task) => task.id === changing);
	const shown = (tasks: readonly SheetTaskDto[]) =>
		tasks.map((task) => (
			<TaskLine
				key={task.id}
				project={record.id}
				task={task}
				onOpen={() => setChanging(task.id)}
			/>
		));
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
			{record.path.turn.waits === "Resting" && (
				<p className="under pt-1">
					The project rests until {record.path.turn.until}: until then no task
					of it comes up on Today, and no reminder goes out.
				</p>
			)}
			{progress && (
				<p className="flex flex-wrap gap-x-3 pt-1.5 pb-1 text-small text-soft">
					<span>{progress}</span>
					{mine.length > 1 && (
						<Button
							kind="word"
							className="ml-auto"
							onClick={() => setOrder(offered ? "due" : "offered")}
						>
							{offered ? "by due day" : "what matters first"}
						</Button>
					)}
				</p>
			)}
			{offered
				? shown(mine)
				: listsOf(mine).map(([list, tasks], _, all) => (
						<section key={list} aria-label={list || "Without a list"}>
							{list && all.length > 1 && (
								<h3 className="label pt-1.5">{list}</h3>
							)}
							{shown(tasks)}
						</section>
					))}
			{theirs.length > 0 && <Theirs record={record}>{shown(theirs)}</Theirs>}
			<AddTask project={record.id} />
			<DoneTasks record={record} />
			{changed && (
				<ChangeTask
					key={changed.id}
					record={record}
					task={changed}
					onClose={() => setChanging(undefined)}
				/>
			)}
		</Block>
	);
}

/** What stands in no list first, then list by list as each was begun. */
function listsOf(tasks: readonly SheetTaskDto[]): [string, SheetTaskDto[]][] {
	const lists = new Map<string, SheetTaskDto[]>([["", []]]);
	const begun = [...tasks].sort((a, b) => a.id - b.id);
	for (const { kept } of begun)
		if (kept.plan?.list) lists.set(kept.plan.list, []);
	for (const task of tasks) lists.get(task.kept.plan?.list ?? "")?.push(task);
	return [...lists].filter(([, some]) => some.length > 0);
}

/** What the client is to do, and whether they can see it. */
function Theirs({
	record,
	children,
}: {
	record: RecordDto;
	children: React.ReactNode;
}) {
	const name = record.head.client.name.split(" ")[0];
	const isOpen = record.sheet.page.parts.some(
		({ part, since }) => part === "Tasks" && since,
	);
	return (
		<section aria-label={`For ${name} to do`}>
			<h3 className="label pt-1.5">For {name} to do</h3>
			{!isOpen && (
				<p className="under">
					{name} does not see them yet: open “Tasks for the client” under Client
					page.
				</p>
			)}
			{children}
		</section>
	);
}

/** What is ticked off already; the tick is taken away again. */
function DoneTasks({ record }: { record: RecordDto }) {
	const { mark } = useTaskDone(record.id);
	const { done } = record.sheet.tasks;
	if (done.length === 0) return null;
	return (
		<Fold className="pt-1.5 text-soft" line={`${done.length} done`}>
			{done.map((task) => (
				<div key={task.id} className="flex gap-2.5 py-[3px] text-[14.3px]">
					<Tick
						hidden
						label={`${task.title} is done`}
						checked
						onChange={() => mark(task.id, false)}
					/>
					<span className="min-w-0 break-words">{task.title}</span>
					<span className="ml-auto whitespace-nowrap">{task.done}</span>
				</div>
			))}
		</Fold>
	);
}
