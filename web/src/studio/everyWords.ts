import type { Every } from "../api/schema";

/** How often something comes again. */
export const everyWords: Record<Every, string> = {
	Week: "every week",
	TwoWeeks: "every two weeks",
	Month: "every month",
	Quarter: "every quarter",
	Year: "every year",
};
