import { useState } from "react";
import type { TodayDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Empty } from "../../ui/Empty";
import { Head } from "./Head";
import { Turn } from "./TodayTurn";

type Turns = TodayDto["yourTurn"]["cards"];

/** Of each group on a phone, so that what is ready to go out is not far below. */
const shownOnPhone = 3;

/** What waits for the owner: unanswered inquiries first, then the rest, longest first. */
export function YourTurn({ today }: { today: TodayDto }) {
	return (
		<section aria-labelledby="your-turn">
			<Head
				id="your-turn"
				title="Your turn"
				under={`${today.yourTurn.count} project${today.yourTurn.count === 1 ? "" : "s"}`}
			/>
			<Group
				title="New inquiries"
				turns={today.yourTurn.cards.filter((one) => one.isInquiry)}
			/>
			<Group
				title="Then, longest first"
				turns={today.yourTurn.cards.filter((one) => !one.isInquiry)}
			/>
			{today.yourTurn.count === 0 && (
				<Empty>
					Nothing waits for you. A new inquiry would stand here first.
				</Empty>
			)}
		</section>
	);
}

function Group({ title, turns }: { title: string; turns: Turns }) {
	const [all, setAll] = useState(false);
	if (turns.length === 0) return null;
	const more = turns.length - shownOnPhone;
	return (
		<>
			<h3 className="pt-2.5 pb-1 text-[12.5px] font-semibold text-soft">
				{title}
			</h3>
			{turns.slice(0, shownOnPhone).map((one) => (
				<Turn key={one.card.id} turn={one} />
			))}
			{more > 0 && (
				<>
					<div className={all ? "" : "max-lg:hidden"}>
						{turns.slice(shownOnPhone).map((one) => (
							<Turn key={one.card.id} turn={one} />
						))}
					</div>
					{!all && (
						<p className="border-b border-hair py-2 lg:hidden">
							<Button kind="word" onClick={() => setAll(true)}>
								and {more} more
							</Button>
						</p>
					)}
				</>
			)}
		</>
	);
}
