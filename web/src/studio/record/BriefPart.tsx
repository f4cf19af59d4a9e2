import type { BriefPartOfDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Write } from "./WriteBrief";

export function Part({
	part,
	project,
	open,
	onOpen,
}: {
	part: BriefPartOfDto;
	project: number;
	open: boolean;
	onOpen: () => void;
}) {
	return (
		<div className="border-b border-hair py-1 text-[14.3px] last:border-0">
			<Button
				kind="line"
				className="w-full"
				aria-expanded={open}
				onClick={onOpen}
			>
				<span className="under">
					{part.name}
					{part.private && ", mine alone"}
					{part.later && !part.text && ", after booking"}
				</span>
				{!open && part.text && (
					<span className="block whitespace-pre-line">{part.text}</span>
				)}
			</Button>
			{open && <Write key={part.edition} part={part} project={project} />}
		</div>
	);
}
