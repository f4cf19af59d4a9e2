import type { PaymentMeans, RecurringThen } from "../../api/schema";
import type { Fields } from "./HappenedDetails";

/** What the form holds; each sort of event shows and sends what it needs. */
export type Said = {
	on: string;
	/** The time of day. */
	at: string;
	words: string;
	until: string;
	amount: string;
	tax: string;
	onBooking: string;
	means: NonNullable<PaymentMeans>;
	invoice: string;
	file: string;
	/** Whether more came than is open. */
	ahead: boolean;
	credit: boolean;
	/** Whether a cancelled project is settled by the terms of its kind. */
	terms: boolean;
	/** What becomes of recurring invoices; empty until it is said. */
	recurring: NonNullable<RecurringThen> | "";
	colleague: string;
	letter: boolean;
	subject: string;
	body: string;
};

export type Part = Pick<Fields, "said" | "wrong" | "onChange">;
