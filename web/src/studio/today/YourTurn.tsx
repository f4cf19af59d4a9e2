import type { ReactNode } from "react";
import type { TodayDto } from "../../api/schema";
import { Empty } from "../../ui/Empty";
import { Head } from "./Head";
import { Turn } from "./TodayTurn";

/** What waits for the owner: unanswered inquiries first, then the rest, longest first. */
export function YourTurn({ today }: { today: TodayDto }) {
	const inquiries = today.yourTurn.cards.filter((one) => one.isInquiry);
	const rest = today.yourTurn.cards.filter((one) => !one.isInquiry);
	return (
		<section aria-labelledby="your-turn">
			<Head
				id="your-turn"
				title="Your turn"
				under={`${today.yourTurn.count} project${today.yourTurn.count === 1 ? "" : "s"}`}
			/>
			{inquiries.length > 0 && <Group>New inquiries</Group>}
			{inquiries.map((one) => (
				<Turn key={one.card.id} turn={one} />
			))}
			{rest.length > 0 && <Group>Then, longest first</Group>}
			{rest.map((one) => (
				<Turn key={one.card.id} turn={one} />
			))}
			{today.yourTurn.count === 0 && (
				<Empty>
					Nothing waits for you. A new inquiry would stand here first.
				</Empty>
			)}
		</section>
	);
}

function Group({ children }: { children: ReactNode }) {
	return (
		<h3 className="pt-2.5 pb-1 text-[12.5px] font-semibold text-soft">
			{children}
		</h3>
	);
}
