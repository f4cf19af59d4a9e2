import createClient, { type Middleware } from "openapi-fetch";
import { Refusal } from "./refusal";
import type { paths } from "./schema";

let token = "";

/** Keeps the token that every write carries; it comes with the page's first answer. */
export function keepToken(fresh: string) {
	token = fresh;
}

const writes: Middleware = {
	onRequest({ request }) {
		if (request.method === "GET") return;
		request.headers.set("X-Gesamt-Token", token);
		request.headers.set("Idempotency-Key", newKey());
	},
	async onResponse({ response }) {
		if (!response.ok) throw await Refusal.from(response);
	},
	onError: () => Refusal.unreached(),
};

/** The server's addresses, with what each takes and answers, as it describes them itself. */
export const api = createClient<paths>();
api.use(writes);

/** What was answered; a refusal is thrown. */
export async function answer<T extends { data?: unknown }>(
	call: Promise<T>,
): Promise<Exclude<T["data"], undefined>> {
	const { data } = await call;
	// an answer that is no refusal has its data; one without content (204) is read by nobody
	return data as Exclude<T["data"], undefined>;
}

/** Fetches a file as it is. */
export async function bytes(path: string): Promise<ArrayBuffer> {
	const got = await fetch(path).catch(() => {
		throw Refusal.unreached();
	});
	if (!got.ok) throw await Refusal.from(got);
	return got.arrayBuffer();
}

/** Sends a file as it is. */
export async function upload<T = void>(path: string, file: File): Promise<T> {
	const sent = await fetch(path, {
		method: "POST",
		headers: {
			"Content-Type": "application/octet-stream",
			"X-Gesamt-Token": token,
			"Idempotency-Key": newKey(),
		},
		body: file,
	}).catch(() => {
		throw Refusal.unreached();
	});
	if (!sent.ok) throw await Refusal.from(sent);
	const text = await sent.text();
	return JSON.parse(text || "null");
}

/** A key for one write, or for something new in what is written. randomUUID exists only on secure origins, and a studio may run on a plain address at home. */
export function newKey(): string {
	return Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) =>
		byte.toString(16).padStart(2, "0"),
	).join("");
}
