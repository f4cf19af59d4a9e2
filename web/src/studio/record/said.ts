import type { PaymentMeans } from "../../api/schema";
import type { Fields } from "./HappenedDetails";

/** What the form holds; each sort of event shows and sends what it needs. */
export type Said = {
	on: string;
	words: string;
	until: string;
	amount: string;
	tax: string;
	onBooking: string;
	means: NonNullable<PaymentMeans>;
	invoice: string;
	file: string;
	credit: boolean;
	colleague: string;
	letter: boolean;
	subject: string;
	body: string;
};

export type Part = Pick<Fields, "said" | "wrong" | "onChange">;
