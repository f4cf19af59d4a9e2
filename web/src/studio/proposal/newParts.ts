import type {
	OfferLineDto,
	OfferPartDto,
	PartSort,
	PlanPartDto,
} from "../../api/schema";

/** What a part of the page is called while it is chosen, and what stands above it at first. */
export const partWords: Record<PartSort, { name: string; heading: string }> = {
	Why: { name: "Why", heading: "Why" },
	Scope: { name: "What you get", heading: "What you get" },
	AboutUs: { name: "Why us", heading: "Why us" },
	Terms: { name: "Terms", heading: "Terms" },
	Free: { name: "A text", heading: "" },
	Timeline: { name: "Dates", heading: "When" },
	Picture: { name: "A picture", heading: "" },
	Services: { name: "Services", heading: "" },
};

export const newPart = (sort: PartSort): OfferPartDto => ({
	sort,
	heading: partWords[sort].heading,
	body: "",
	days: sort === "Timeline" ? [] : null,
	picture: null,
});

export const emptyMore: NonNullable<OfferLineDto["more"]> = {
	text: "",
	link: "",
	picture: null,
	limits: null,
	steps: [],
	less: null,
	service: null,
};

export const newPayment: PlanPartDto = {
	share: "0",
	sort: "AroundMainDate",
	days: 0,
	date: null,
	invoiceDaysBefore: 14,
	amount: null,
	name: null,
};

/** A key that no line of the offer has. */
export function newKey(lines: readonly OfferLineDto[]): string {
	let next = lines.length + 1;
	while (lines.some((line) => line.key === `l${next}`)) next++;
	return `l${next}`;
}
