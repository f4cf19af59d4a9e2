import createClient, { type Middleware } from "openapi-fetch";
import { Refusal } from "./refusal";
import type { paths } from "./schema";

let token = "";

/** Keeps the token that every write carries; it comes with the page's first answer. */
export function keepToken(fresh: string) {
	token = fresh;
}

type Lens = (data: unknown) => Promise<unknown>;
let lens: Lens | undefined;
let never = "";

/** From now on every answer is seen through a lens; nothing stands before them without one. What holds the mark that a lens makes is never sent back: it would be saved in the place of what it hides. */
export function lookThrough(through: Lens | undefined, mark: string) {
	[lens, never] = [through, mark];
}

const writes: Middleware = {
	async onRequest({ request }) {
		if (request.method === "GET") return;
		if (never && (await request.clone().text()).includes(never))
			throw new Refusal(
				0,
				"What is hidden cannot be saved. Show names and amounts again (v), and open this anew.",
			);
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
	const through = lens;
	const { data } = await call;
	if (through) return (await through(data)) as Exclude<T["data"], undefined>;
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
