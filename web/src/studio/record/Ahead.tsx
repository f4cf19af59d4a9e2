import { useState } from "react";
import type { AheadDto, OpensDto, RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { useTaskDone } from "../useTaskDone";
import { MoveStep } from "./MoveStep";

export function Ahead({
	entry,
	record,
	onOpen,
}: {
	entry: AheadDto;
	record: RecordDto;
	onOpen: (what: OpensDto) => void;
}) {
	const { done } = useTaskDone(record.id);
	const [moving, setMoving] = useState(false);
	const open = entry.acts.opens;
	return (
		<li className="grid min-h-9 grid-cols-[82px_22px_1fr_auto] text-[14.5px] md:grid-cols-[92px_22px_1fr_auto]">
			<time className="pt-[3px] pr-2.5 text-right text-small text-soft">
				{entry.day}
			</time>
			<span className="relative ml-[9px] border-l-2 border-dotted border-soft">
				<span
					className={`absolute top-1.5 -left-[7px] size-3 border-2 ${entry.acts.held ? "border-ink bg-plaster" : "border-dotted border-(--date) bg-plaster"}`}
				/>
			</span>
			<span className="px-2 pt-px pb-2">
				{open ? (
					<Button
						kind="line"
						className="hover:underline"
						data-walk
						data-opens={`${open.what}.${open.id}`}
						onClick={() => onOpen(open)}
					>
						{entry.title}
					</Button>
				) : (
					entry.title
				)}
				<span className="block text-small text-soft">
					{entry.detail}
					{entry.acts.step && (
						<>
							{" "}
							<Button kind="word" onClick={() => setMoving(true)}>
								move
								<span className="sr-only">: {entry.title}</span>
							</Button>
						</>
					)}
				</span>
			</span>
			<span
				className={`pt-[3px] text-right text-small ${entry.acts.held || entry.acts.mark === "asks first" ? "font-semibold" : "text-soft"}`}
			>
				{entry.acts.taskId ? (
					<Button
						kind="word"
						onClick={() => done(entry.acts.taskId!, entry.title)}
					>
						done
						<span className="sr-only">: {entry.title}</span>
					</Button>
				) : (
					entry.acts.mark
				)}
				{moving && entry.acts.step && (
					<MoveStep
						project={record.id}
						entry={entry}
						step={entry.acts.step}
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
