import type { LetterDeskDto } from "../api/schema";

/** The letter that carries something: the kind's own, else the usual one. */
export const carrying = (desk: LetterDeskDto | undefined, key: string) =>
	[...(desk?.templates ?? []), ...(desk?.usual ?? [])].find(
		(one) => one.key === key,
	);
