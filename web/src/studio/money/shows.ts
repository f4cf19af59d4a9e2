import type { MoneyOverviewDto, MoneyShow } from "../../api/schema";

export type Show = NonNullable<MoneyShow>;
export type Column = MoneyOverviewDto["columns"][number];

/** What the parts of a column are called. */
export const showWords: Record<Show, string> = {
	Received: "received",
	Other: "other income",
	Sent: "sent, not due",
	Late: "late",
	ToCome: "agreed, to come",
	Likely: "likely",
	Spent: "spent",
	Recurs: "will book itself",
};

/** Drawn below the line. */
export const isDown = (show: Show) => show === "Spent" || show === "Recurs";

/** How each is drawn: solid for what is sure, hatched for what is late, dotted for what is ahead. */
export const looks: Record<Show, string> = {
	Received: "fill-ink stroke-ink",
	Other: "fill-soft stroke-ink",
	Sent: "fill-sheet stroke-ink",
	Late: "fill-[url(#late-money)] stroke-ink",
	ToCome: "fill-none stroke-(--date) [stroke-dasharray:1.5_1.5]",
	Likely: "fill-[url(#likely-money)] stroke-none",
	Spent: "fill-(--hatch) stroke-none",
	Recurs: "fill-(--hair) stroke-none",
};

/** As billed, what came from clients stands as it was asked for. */
export const wordsOf = (show: Show, billed: boolean) =>
	billed && show === "Received" ? "billed" : showWords[show];
