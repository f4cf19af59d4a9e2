import type { QueryClient } from "@tanstack/react-query";
import { answer, api, keepToken } from "../../api/client";

const moment = 300;
// a studio of many years works out what it shows when it is first opened
const patience = 2_000;

/** Waits until the studio stands behind this page, which takes a moment, and signs in where its password is known. */
export async function signedIn(queries: QueryClient, password?: string) {
	for (let tried = 0; tried < patience; tried++) {
		await new Promise((go) => setTimeout(go, moment));
		try {
			const session = await answer(api.GET("/api/session"));
			if (session.empty) continue;
			keepToken(session.token);
			if (password !== undefined)
				await answer(api.POST("/api/session", { body: { password } }));
			break;
		} catch {
			// between the first page and the studio nobody answers
		}
	}
	await queries.invalidateQueries({ queryKey: ["session"] });
}
