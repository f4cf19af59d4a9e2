import { useState } from "react";
import { Link } from "react-router";
import type { CardDto, TurnsDto } from "../api/schema";
import { Choice, Choices } from "../ui/Choice";

type Side = CardDto["side"];

/** The same on a phone: one side at a time, the longest waiting first, by age. */
export function TurnsList({ turns }: { turns: TurnsDto }) {
	const [side, setSide] = useState<Side>("Yours");
	const cards = turns.lanes.flatMap((lane) => lane.cards);
	const of = (one: Side) =>
		cards
			.filter((card) => card.side === one)
			.sort(
				(a, b) => turns.longest.indexOf(a.id) - turns.longest.indexOf(b.id),
			);
	const bands = [
		["Old", turns.ages.old],
		["Waiting", turns.ages.waiting],
		["Fresh", turns.ages.fresh],
	] as const;
	return (
		<div className="grid gap-3 px-4">
			<Choices
				label="Whose"
				hidden
				value={side}
				className="grid grid-cols-3"
				onChange={(one) => setSide(one as Side)}
			>
				<Choice chip value="Yours">
					Yours, {of("Yours").length}
				</Choice>
				<Choice chip value="Clients">
					Theirs, {of("Clients").length}
				</Choice>
				<Choice chip value="Nobodys">
					Nobody’s, {turns.quiet.length}
				</Choice>
			</Choices>
			{side === "Nobodys"
				? turns.quiet.map((one) => (
						<Link
							key={one.id}
							to={`/projects/${one.id}`}
							data-walk
							className="block border-b border-hair py-2"
						>
							<b className="font-[650]">{one.title}</b>
							<span className="under block">{one.words}</span>
						</Link>
					))
				: bands.map(([band, words]) => (
						<Band
							key={band}
							words={words}
							cards={of(side).filter((card) => card.band === band)}
						/>
					))}
			{(side === "Nobodys" ? turns.quiet : of(side)).length === 0 && (
				<p className="text-soft">Nothing here.</p>
			)}
		</div>
	);
}

function Band({ words, cards }: { words: string; cards: CardDto[] }) {
	if (cards.length === 0) return null;
	return (
		<section aria-label={words}>
			<h2 className="text-[12.5px] font-semibold text-soft first-letter:uppercase">
				{words}
			</h2>
			{cards.map((card) => (
				<Link
					key={card.id}
					to={`/projects/${card.id}`}
					data-walk
					className="flex gap-3 border-b border-hair py-2"
				>
					<span className="min-w-0">
						<b className="font-[650]">{card.title}</b>
						<span className="under block">
							{card.stage}. {card.words}
							{card.nudged && `, ${card.nudged}`}
							{card.late && <b className="text-ink">, {card.late}</b>}
							{card.held && <b className="text-ink">. {card.held}</b>}
						</span>
					</span>
					<span
						className={`num ml-auto whitespace-nowrap ${card.side === "Yours" ? "text-yours" : "text-theirs"}`}
					>
						{card.age}
					</span>
				</Link>
			))}
		</section>
	);
}
