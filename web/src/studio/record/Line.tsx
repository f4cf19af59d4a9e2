import { useState } from "react";
import type { EntrySort, OpensDto, RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Ahead } from "./Ahead";
import { Past } from "./Past";
import { Writing } from "./Writing";

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
	const past = record.line.past.filter((entry) => !hidden.includes(entry.sort));
	const earlier = all ? 0 : Math.max(0, past.length - shownAtFirst);
	const ahead = record.line.ahead.filter(
		(entry) => !hidden.includes(entry.sort),
	);
	const toggle = (sort: EntrySort) =>
		setHidden((before) =>
			before.includes(sort)
				? before.filter((one) => one !== sort)
				: [...before, sort],
		);
	return (
		<section aria-label="Line">
			<div className="flex flex-wrap gap-x-3.5 gap-y-1 pb-2 text-small text-soft md:pl-[122px] [&_button]:min-h-6">
				{earlier > 0 && (
					<Button kind="word" onClick={() => setAll(true)}>
						{earlier} earlier
					</Button>
				)}
				<span className="ml-auto flex flex-wrap gap-x-3.5">
					{sorts.map(({ sort, words }) => {
						const count =
							record.line.past.filter((entry) => entry.sort === sort).length +
							record.line.ahead.filter((entry) => entry.sort === sort).length;
						return count === 0 ? null : (
							<Button
								kind="line"
								key={sort}
								aria-pressed={!hidden.includes(sort)}
								className={hidden.includes(sort) ? "line-through" : ""}
								onClick={() => toggle(sort)}
							>
								{words} {count}
							</Button>
						);
					})}
				</span>
			</div>
			<ol>
				{past.slice(earlier).map((entry) => (
					<Past key={entry.id} entry={entry} opened={opened} onOpen={onOpen} />
				))}
			</ol>
			{!record.head.erased && <Writing project={record.id} onWrite={onWrite} />}
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
