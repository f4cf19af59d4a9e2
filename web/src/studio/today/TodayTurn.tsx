import { Link } from "react-router";
import type { TodayCardDto } from "../../api/schema";

export function Turn({ turn }: { turn: TodayCardDto }) {
	const { card } = turn;
	return (
		<Link
			to={`/projects/${card.id}`}
			data-walk
			className="grid grid-cols-[1fr_auto] gap-x-3 border-b border-hair py-[8px] text-[14.6px] focus-visible:bg-sheet focus-visible:outline-offset-0"
		>
			<span>
				<b className="font-[650]">{card.title}</b>,{" "}
				{card.words.charAt(0).toLowerCase() + card.words.slice(1)}
			</span>
			<span className="num text-[13.4px] text-yours">
				{card.age}
				<span className="sr-only"> waiting for you</span>
			</span>
			<span className="under col-span-2 truncate">{turn.lastWords}</span>
		</Link>
	);
}
