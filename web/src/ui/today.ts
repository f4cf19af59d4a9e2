import { answer, api } from "../api/client";

/** The day it is in the studio, as YYYY-MM-DD; the device may be in another zone, or at another date. */
export const studioDay = (): Promise<string> =>
	answer(api.GET("/typed/day", { params: { query: { text: "today" } } })).then(
		(read) => read.value ?? deviceDay(),
		() => deviceDay(),
	);

const deviceDay = () => new Date().toISOString().slice(0, 10);
