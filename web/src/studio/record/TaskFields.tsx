import { useId, useState } from "react";
import type { RecordDto } from "../../api/schema";
import { DateField } from "../../ui/DateField";
import { Fold } from "../../ui/Fold";
import { Select } from "../../ui/Select";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { FulfilmentSelect } from "../FulfilmentSelect";
import { WeightSelect } from "../WeightSelect";
import type { TaskDraft } from "./ChangeTask";

/** The fields of a task: when, how much, where it belongs, what there is to say. */
export function TaskFields({
	record,
	counted,
	draft,
	wrong,
	set,
}: {
	record: RecordDto;
	counted: string | null;
	draft: TaskDraft;
	wrong: (field: string) => string | undefined;
	set: (part: Partial<TaskDraft>) => void;
}) {
	const lists = useId();
	const plan = draft.plan!;
	const setPlan = (part: Partial<typeof plan>) =>
		set({ plan: { ...plan, ...part } });
	const { phases } = record.sheet.work;
	const name = record.head.client.name.split(" ")[0];
	return (
		<>
			<TextField
				label="Task"
				value={draft.title}
				wrong={wrong("title")}
				onChange={(e) => set({ title: e.target.value })}
			/>
			<div className="grid gap-3 md:grid-cols-2">
				<DateField
					label="Due"
					hint={
						counted
							? `counted: ${counted}; a day set by hand is asked about when the date moves`
							: undefined
					}
					value={draft.due ?? ""}
					wrong={wrong("due")}
					onChange={(day) => set({ due: day || null })}
				/>
				<DateField
					label="Worked on"
					hint="the day it is done; the due day stays"
					value={plan.workOn ?? ""}
					wrong={wrong("plan.workOn")}
					onChange={(day) => setPlan({ workOn: day || null })}
				/>
			</div>
			<div className="grid grid-cols-2 gap-3 md:grid-cols-3">
				<div className="max-md:col-span-2">
					<TextField
						label="Estimate"
						placeholder="3 h, 45 min"
						value={plan.estimate}
						wrong={wrong("plan.estimate")}
						onChange={(e) => setPlan({ estimate: e.target.value })}
					/>
				</div>
				<WeightSelect
					label="Importance"
					words={["low", "middling", "high"]}
					value={plan.importance}
					wrong={wrong("plan.importance")}
					onChange={(importance) => setPlan({ importance })}
				/>
				<WeightSelect
					label="Effort"
					words={["little", "some", "much"]}
					empty="by the estimate"
					value={plan.effort}
					wrong={wrong("plan.effort")}
					onChange={(effort) => setPlan({ effort })}
				/>
			</div>
			<div className="grid gap-3 md:grid-cols-2">
				<TextField
					label="List"
					placeholder="such as Scaffold, Paint, Paperwork"
					list={lists}
					value={plan.list}
					wrong={wrong("plan.list")}
					onChange={(e) => setPlan({ list: e.target.value })}
				/>
				<datalist id={lists}>
					{record.sheet.tasks.lists.map((list) => (
						<option key={list} value={list} />
					))}
				</datalist>
				{phases.length > 0 && (
					<Select
						label="Phase"
						value={draft.phase ?? ""}
						wrong={wrong("phase")}
						onChange={(e) => set({ phase: e.target.value || null })}
					>
						<option value="">none</option>
						{phases.map((one) => (
							<option key={one.name}>{one.name}</option>
						))}
					</Select>
				)}
			</div>
			<Words {...{ draft, wrong, set }} />
			<Tick
				label={`${name} does it: it stands on the client page, in the part “Tasks for the client”`}
				checked={Boolean(draft.isClients)}
				onChange={(isClients) => set({ isClients })}
			/>
		</>
	);
}

/** What there is to say besides, folded away while nothing is said. */
function Words({
	draft,
	wrong,
	set,
}: {
	draft: TaskDraft;
	wrong: (field: string) => string | undefined;
	set: (part: Partial<TaskDraft>) => void;
}) {
	const words = draft.words!;
	const setWords = (part: Partial<typeof words>) =>
		set({ words: { ...words, ...part } });
	const [said] = useState(
		() =>
			Boolean(words.description || words.finished || draft.lines) ||
			draft.doneBy !== null,
	);
	return (
		<Fold begin={said} line="What it is about, when it is finished, its parts">
			<div className="grid gap-3 pt-2">
				<TextArea
					label="What it is about"
					rows={2}
					value={words.description}
					wrong={wrong("words.description")}
					onChange={(e) => setWords({ description: e.target.value })}
				/>
				<TextField
					label="Finished when"
					value={words.finished}
					wrong={wrong("words.finished")}
					onChange={(e) => setWords({ finished: e.target.value })}
				/>
				<TextArea
					label="Its parts, one a line"
					rows={Math.min(8, Math.max(2, draft.lines.split("\n").length))}
					value={draft.lines}
					wrong={wrong("words.steps")}
					onChange={(e) => set({ lines: e.target.value })}
				/>
				<FulfilmentSelect
					value={draft.doneBy}
					onChange={(doneBy) => set({ doneBy })}
				/>
			</div>
		</Fold>
	);
}
