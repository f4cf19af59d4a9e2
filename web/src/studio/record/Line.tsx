import { useState } from "react";
import type {
	AheadDto,
	EntryDto,
	EntrySort,
	OpensDto,
	RecordDto,
} from "../../api/schema";
import { Alert } from "../../ui/Fields";
import { post } from "../../ui/http";
import { useKept } from "../../ui/useKept";
import { useAct } from "../useAct";
import { useTaskDone } from "../useTaskDone";
import { MoveStep } from "./MoveStep";

const sorts: { sort: EntrySort; words: string }[] = [
	{ sort: "Letters", words: "letters" },
	{ sort: "Papers", words: "papers" },
	{ sort: "Work", words: "work" },
	{ sort: "Money", words: "money" },
	{ sort: "Tasks", words: "tasks" },
	{ sort: "Notes", words: "notes" },
	{ sort: "Meetings", words: "meetings" },
	{ sort: "Steps", words: "stopped" },
];
const shownAtFirst = 9;

type Props = {
	record: RecordDto;
	opened: string | null;
	onOpen: (what: OpensDto) => void;
	onWrite: () => void;
};

/** What happened above today's rule, what is planned below it. */
export function Line({ record, opened, onOpen, onWrite }: Props) {
	const [hidden, setHidden] = useState<EntrySort[]>([]);
	const [all, setAll] = useState(false);
	const past = record.line.filter((entry) => !hidden.includes(entry.sort));
	const earlier = all ? 0 : Math.max(0, past.length - shownAtFirst);
	const ahead = record.ahead.filter((entry) => !hidden.includes(entry.sort));
	const toggle = (sort: EntrySort) =>
		setHidden((before) =>
			before.includes(sort)
				? before.filter((one) => one !== sort)
				: [...before, sort],
		);
	return (
		<section aria-label="Line">
			<div className="flex flex-wrap gap-x-3.5 gap-y-1 pb-2 text-small text-soft md:pl-[122px]">
				{earlier > 0 && (
					<button type="button" className="link" onClick={() => setAll(true)}>
						{earlier} earlier
					</button>
				)}
				<span className="ml-auto flex flex-wrap gap-x-3.5">
					{sorts.map(({ sort, words }) => {
						const count =
							record.line.filter((entry) => entry.sort === sort).length +
							record.ahead.filter((entry) => entry.sort === sort).length;
						return count === 0 ? null : (
							<button
								key={sort}
								type="button"
								aria-pressed={!hidden.includes(sort)}
								className={hidden.includes(sort) ? "line-through" : ""}
								onClick={() => toggle(sort)}
							>
								{words} {count}
							</button>
						);
					})}
				</span>
			</div>
			<ol>
				{past.slice(earlier).map((entry) => (
					<Past key={entry.id} entry={entry} opened={opened} onOpen={onOpen} />
				))}
			</ol>
			<Writing project={record.id} onWrite={onWrite} />
			<ol>
				{ahead.map((entry) => (
					<Ahead
						key={entry.key}
						entry={entry}
						record={record}
						onOpen={onOpen}
					/>
				))}
			</ol>
			{ahead.length === 0 && (
				<p className="py-2 text-soft md:pl-[122px]">
					Nothing is planned. Tasks, routine steps and invoices to come stand
					here.
				</p>
			)}
		</section>
	);
}

const marks: Record<EntryDto["from"], string> = {
	Done: "bg-ink",
	Note: "border-2 border-ink bg-plaster",
	Client: "bg-theirs [clip-path:polygon(0_0,65%_0,100%_50%,65%_100%,0_100%)]",
};

function Past({
	entry,
	opened,
	onOpen,
}: {
	entry: EntryDto;
	opened: string | null;
	onOpen: (what: OpensDto) => void;
}) {
	const open = entry.opens;
	const words = (
		<>
			{entry.title}
			{entry.detail && (
				<span className="block text-small text-soft">{entry.detail}</span>
			)}
		</>
	);
	const isOpen = open && opened === `${open.what}.${open.id}`;
	return (
		<li className="grid min-h-9 grid-cols-[64px_22px_1fr_auto] text-[14.5px] md:grid-cols-[92px_22px_1fr_auto]">
			<time className="pt-[3px] pr-2.5 text-right text-small text-soft">
				{entry.day}
			</time>
			<span className="relative ml-[9px] border-l-2 border-ink">
				<span
					className={`absolute top-1.5 -left-[7px] size-3 ${marks[entry.from]}`}
				/>
			</span>
			{open ? (
				<button
					type="button"
					data-walk
					aria-expanded={Boolean(isOpen)}
					className={`self-start px-2 pt-px pb-2 text-left hover:bg-sheet ${isOpen ? "bg-sheet" : ""}`}
					onClick={() => onOpen(open)}
				>
					{words}
				</button>
			) : (
				<span className="px-2 pt-px pb-2">{words}</span>
			)}
			<time className="pt-[3px] text-small text-soft" title={entry.exact}>
				{entry.time}
			</time>
		</li>
	);
}

function Ahead({
	entry,
	record,
	onOpen,
}: {
	entry: AheadDto;
	record: RecordDto;
	onOpen: (what: OpensDto) => void;
}) {
	const done = useTaskDone(record.id);
	const [moving, setMoving] = useState(false);
	const open = entry.opens;
	return (
		<li className="grid min-h-9 grid-cols-[64px_22px_1fr_auto] text-[14.5px] md:grid-cols-[92px_22px_1fr_auto]">
			<time className="pt-[3px] pr-2.5 text-right text-small text-soft">
				{entry.day}
			</time>
			<span className="relative ml-[9px] border-l-2 border-dotted border-soft">
				<span
					className={`absolute top-1.5 -left-[7px] size-3 border-2 ${entry.held ? "border-ink bg-plaster" : "border-dotted border-(--date) bg-plaster"}`}
				/>
			</span>
			<span className="px-2 pt-px pb-2">
				{open ? (
					<button
						type="button"
						data-walk
						className="text-left hover:underline"
						onClick={() => onOpen(open)}
					>
						{entry.title}
					</button>
				) : (
					entry.title
				)}
				<span className="block text-small text-soft">
					{entry.detail}
					{entry.step && (
						<>
							{" "}
							<button
								type="button"
								className="link"
								onClick={() => setMoving(true)}
							>
								move
								<span className="sr-only">: {entry.title}</span>
							</button>
						</>
					)}
				</span>
			</span>
			<span
				className={`pt-[3px] text-right text-small ${entry.held || entry.mark === "asks first" ? "font-semibold" : "text-soft"}`}
			>
				{entry.taskId ? (
					<button
						type="button"
						className="link"
						onClick={() => done(entry.taskId!, entry.title)}
					>
						done
						<span className="sr-only">: {entry.title}</span>
					</button>
				) : (
					entry.mark
				)}
				{moving && entry.step && (
					<MoveStep
						project={record.id}
						entry={entry}
						step={entry.step}
						onClose={() => setMoving(false)}
					/>
				)}
				{entry.time && (
					<span className="block font-normal text-soft">{entry.time}</span>
				)}
			</span>
		</li>
	);
}

/** The one writing field on today's rule. */
function Writing({
	project,
	onWrite,
}: {
	project: number;
	onWrite: () => void;
}) {
	const [text, change, forget] = useKept(`note:${project}`, "");
	const act = useAct();
	const isCall = /^call\b/i.test(text);
	async function keep() {
		const words = isCall ? text.replace(/^call[:,]?\s*/i, "") : text;
		const kind = isCall
			? () => post(`/api/projects/${project}/happened`, { sort: "Call", words })
			: () => post(`/api/projects/${project}/notes`, { text: words });
		if (!(await act.run(kind))) return;
		change("");
		forget();
	}
	return (
		<div className="my-1 mb-3 border-y-[1.5px] border-ink bg-sheet">
			<form
				className="flex flex-wrap items-center gap-2.5 py-1.5 pr-2.5"
				onSubmit={(event) => {
					event.preventDefault();
					keep();
				}}
			>
				<span className="w-[92px] pr-2.5 text-right font-head text-[13.5px] font-[650] max-md:w-auto max-md:pl-2">
					Today
				</span>
				<input
					id="write-here"
					aria-label="Write a note, or begin with “call”"
					placeholder="Write here: a note, or “call” and what was said"
					className="min-w-40 flex-1 bg-transparent px-2 py-1.5"
					value={text}
					onChange={(e) => change(e.target.value)}
				/>
				{text.trim() ? (
					<button type="submit" className="btn btn-go" disabled={act.busy}>
						Keep this {isCall ? "call" : "note"}
					</button>
				) : (
					<button type="button" className="btn" onClick={onWrite}>
						Write a letter
					</button>
				)}
			</form>
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
		</div>
	);
}
