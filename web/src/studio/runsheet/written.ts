import type { Refusal } from "../../api/refusal";
import type { RunItemDto } from "../../api/schema";

/** Items that say something; a line that was only begun waits until it does. */
export const saying = (items: readonly RunItemDto[]) =>
	items.filter((one) => one.what || one.where || one.who || one.length);

/** What is wrong with an item, by its key: the server names it by its place among those that say something. */
export const wrongIn =
	(refusal: Refusal | undefined, items: readonly RunItemDto[]) =>
	(key: string, field: string) =>
		refusal?.of(
			`items[${saying(items).findIndex((one) => one.key === key)}].${field}`,
		);
