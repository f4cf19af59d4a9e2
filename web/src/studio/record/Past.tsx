import type { EntryDto, OpensDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Tip } from "../../ui/Tip";

export const marks: Record<EntryDto["from"], string> = {
	Done: "bg-ink",
	Note: "border-2 border-ink bg-plaster",
	Client: "bg-theirs [clip-path:polygon(0_0,65%_0,100%_50%,65%_100%,0_100%)]",
};

export function Past({
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
		<li className="grid min-h-9 grid-cols-[82px_22px_1fr_auto] text-[14.5px] md:grid-cols-[92px_22px_1fr_auto]">
			<time className="pt-[3px] pr-2.5 text-right text-small text-soft">
				{entry.at.day}
			</time>
			<span className="relative ml-[9px] border-l-2 border-ink">
				<span
					className={`absolute top-1.5 -left-[7px] size-3 ${marks[entry.from]}`}
				/>
			</span>
			{open ? (
				<Button
					kind="line"
					data-walk
					data-opens={`${open.what}.${open.id}`}
					aria-expanded={Boolean(isOpen)}
					className={`self-start px-2 pt-px pb-2 text-left hover:bg-sheet ${isOpen ? "bg-sheet" : ""}`}
					onClick={() => onOpen(open)}
				>
					{words}
				</Button>
			) : (
				<span className="px-2 pt-px pb-2">{words}</span>
			)}
			<Tip words={entry.at.exact}>
				<time className="pt-[3px] text-small text-soft">{entry.at.time}</time>
			</Tip>
		</li>
	);
}
