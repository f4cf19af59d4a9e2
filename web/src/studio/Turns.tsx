import { useQuery } from "@tanstack/react-query";
import { Fragment, useEffect } from "react";
import { Link, useSearchParams } from "react-router";
import { answer, api } from "../api/client";
import type { CardDto, LaneDto, TurnsDto } from "../api/schema";
import { Button } from "../ui/Button";
import { ShownPage } from "../ui/Shown";
import { Tip } from "../ui/Tip";
import { Over } from "./Over";
import { TurnsList } from "./TurnsList";
import { useNarrow } from "./useNarrow";

type Column = { side: CardDto["side"]; band: CardDto["band"] };

const yours: Column[] = [
	{ side: "Yours", band: "Old" },
	{ side: "Yours", band: "Waiting" },
	{ side: "Yours", band: "Fresh" },
];
const clients: Column[] = [...yours]
	.reverse()
	.map((column) => ({ ...column, side: "Clients" }));

/** Whose turn it is: five stages by six ages around a spine, the further out the longer. */
export default function Turns() {
	const turns = useQuery({
		queryKey: ["over", "turns"],
		queryFn: () => answer(api.GET("/api/turns")),
	});
	const narrow = useNarrow();
	useEffect(() => {
		document.title = "Turns, Gesamt";
	}, []);
	return (
		<ShownPage query={turns}>
			{(data) => (
				<main className="pb-16">
					<div className="flex flex-wrap items-end gap-x-5 gap-y-1 px-5 pt-4 pb-3 max-md:px-4">
						<h1>Whose turn is it?</h1>
						<p className="text-soft">{data.summary}</p>
						<div className="ml-auto max-md:ml-0">
							<Over />
						</div>
					</div>
					{narrow ? (
						<TurnsList turns={data} />
					) : (
						<>
							<Spine turns={data} />
							<Quiet turns={data} />
						</>
					)}
				</main>
			)}
		</ShownPage>
	);
}

function Spine({ turns }: { turns: TurnsDto }) {
	const [search, setSearch] = useSearchParams();
	// an address that names no gate shows them all
	const gate = turns.lanes.find((l) => l.stage === search.get("gate"))?.stage;
	const words = {
		Fresh: turns.ages.fresh,
		Waiting: turns.ages.waiting,
		Old: turns.ages.old,
	};
	return (
		<div className="overflow-x-auto">
			<div className="grid min-w-[900px] grid-cols-[112px_1fr_1.1fr_1.05fr_10px_1.05fr_1.1fr_1fr] px-5">
				<span />
				<h2 className="col-span-3 pr-3 pb-1 text-right text-[15px] text-yours">
					Your turn
				</h2>
				<span />
				<h2 className="col-span-3 pb-1 pl-3 text-[15px] text-theirs">
					The client's turn
				</h2>
				<span />
				{yours.map((column) => (
					<Age key={column.band} words={words[column.band]} />
				))}
				<span className="rule bg-ink" />
				{clients.map((column) => (
					<Age key={column.band} words={words[column.band]} />
				))}
				{turns.lanes
					.filter((lane) => !gate || lane.stage === gate)
					.map((lane) => (
						<Lane
							key={lane.stage}
							lane={lane}
							dense={turns.dense && !gate}
							alone={lane.stage === gate}
							onNarrow={() =>
								setSearch(lane.stage === gate ? {} : { gate: lane.stage }, {
									replace: true,
								})
							}
						/>
					))}
			</div>
			{turns.lanes.every((lane) => lane.cards.length === 0) && (
				<p className="p-5 text-soft">
					No project is open. The first inquiry will stand left of the spine.
				</p>
			)}
		</div>
	);
}

function Age({ words }: { words: string }) {
	return (
		<div className="rule px-2 pt-1 pb-1.5 text-[12.5px] text-soft first-letter:uppercase">
			{words}
		</div>
	);
}

function Lane({
	lane,
	dense,
	alone,
	onNarrow,
}: {
	lane: LaneDto;
	dense: boolean;
	/** It is the one gate that is shown. */
	alone: boolean;
	onNarrow: () => void;
}) {
	return (
		<Fragment>
			<div className="border-b border-hair pt-2.5 pb-2">
				<h3 className="text-[14px]">
					<Button kind="line" aria-pressed={alone} onClick={onNarrow}>
						{lane.stage}
						{alone && <span className="under block">show all gates</span>}
					</Button>
				</h3>
				<span className="under">{lane.under}</span>
			</div>
			{yours.map((column) => (
				<Cell key={column.band} lane={lane} column={column} dense={dense} />
			))}
			<div className="bg-ink" />
			{clients.map((column) => (
				<Cell key={column.band} lane={lane} column={column} dense={dense} />
			))}
		</Fragment>
	);
}

function Cell({
	lane,
	column,
	dense,
}: {
	lane: LaneDto;
	column: Column;
	dense: boolean;
}) {
	return (
		<div className="flex flex-col gap-1.5 border-b border-hair px-[5px] py-1.5">
			{lane.cards
				.filter(
					(card) => card.side === column.side && card.band === column.band,
				)
				.map((card) => (
					<Card key={card.id} card={card} dense={dense} />
				))}
		</div>
	);
}

function Card({ card, dense }: { card: CardDto; dense: boolean }) {
	const mine = card.side === "Yours";
	const old = card.band === "Old";
	const wash = old
		? mine
			? "bg-(--yours-wash)"
			: "bg-(--theirs-wash)"
		: "bg-sheet";
	return (
		<Tip words={dense && card.words}>
			<Link
				to={`/projects/${card.id}`}
				data-walk
				className={`group block py-[5px] text-[13.5px] leading-[1.25] focus-visible:-outline-offset-2 ${mine ? "card-yours pr-[17px] pl-2.5" : "card-theirs pr-2.5 pl-[17px]"} ${wash}`}
			>
				<span
					className={`num float-right ml-1.5 text-[12.4px] font-semibold ${mine ? "text-yours" : "text-theirs"}`}
				>
					{card.age}
				</span>
				<b className={`font-[650] ${dense ? "block truncate" : "block"}`}>
					{card.title}
				</b>
				<span
					className={`text-[12.6px] text-soft ${dense ? "hidden group-focus:block" : "block"}`}
				>
					{card.words}
					{card.nudged && `, ${card.nudged}`}
					{card.late && <b className="text-ink">, {card.late}</b>}
				</span>
				{card.held && (
					<span className="mt-[3px] block border-t border-dashed border-hair pt-[2px] text-[12.4px]">
						{card.held}
					</span>
				)}
			</Link>
		</Tip>
	);
}

function Quiet({ turns }: { turns: TurnsDto }) {
	return (
		<section
			aria-label="Nobody's turn"
			className="fixed inset-x-0 bottom-0 flex min-h-[46px] flex-wrap items-center gap-x-6 gap-y-1 border-t border-hair bg-sheet px-5 py-2 text-soft"
		>
			<h2 className="text-[15px] text-ink">Nobody's turn</h2>
			{turns.quiet.slice(0, 5).map((one) => (
				<span key={one.id}>
					<Link to={`/projects/${one.id}`}>{one.title}</Link> {one.words}
				</span>
			))}
			{turns.quiet.length > 5 && <span>and {turns.quiet.length - 5} more</span>}
			{turns.quiet.length === 0 && <span>nothing rests</span>}
		</section>
	);
}
