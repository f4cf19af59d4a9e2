/** A refusal of the server (RFC 9457), with what is wrong by field. */
export class Refusal extends Error {
	constructor(
		readonly status: number,
		message: string,
		readonly errors: Record<string, string[]> = {},
		readonly theirs: unknown = undefined,
		/** The password was right, and a one-time code is asked for. */
		readonly needsCode = false,
	) {
		super(message);
	}

	/** What is wrong with one field; nothing when it is fine. */
	of(field: string): string | undefined {
		return this.errors[field]?.join(" ");
	}
}

let token = "";

/** Keeps the token that every write carries; it comes with the page's first answer. */
export function keepToken(fresh: string) {
	token = fresh;
}

async function send<T>(
	method: string,
	path: string,
	body?: unknown,
	file?: File,
): Promise<T> {
	const writes = method !== "GET";
	const answer = await fetch(path, {
		method,
		headers: {
			...(file ? { "Content-Type": "application/octet-stream" } : {}),
			...(body === undefined ? {} : { "Content-Type": "application/json" }),
			...(writes
				? { "X-Gesamt-Token": token, "Idempotency-Key": newKey() }
				: {}),
		},
		body: file ?? (body === undefined ? undefined : JSON.stringify(body)),
	}).catch(() => {
		throw new Refusal(
			0,
			"Gesamt cannot be reached. What you typed is still here; try again in a moment.",
		);
	});
	const text = await answer.text();
	if (answer.ok) return (text ? JSON.parse(text) : undefined) as T;
	throw refusalOf(answer.status, text);
}

function refusalOf(status: number, text: string): Refusal {
	try {
		const problem = JSON.parse(text);
		return new Refusal(
			status,
			problem.detail ?? problem.title ?? "It was refused.",
			problem.errors,
			problem.theirs,
			problem.needsCode === true,
		);
	} catch {
		if (status === 413) return new Refusal(status, "This is too large.");
		if (status === 429)
			return new Refusal(
				status,
				"That was a little often. Wait a minute and try again.",
			);
		return new Refusal(
			status,
			"Something went wrong here. Nothing was lost; try again.",
		);
	}
}

export const get = <T>(path: string) => send<T>("GET", path);
export const post = <T = void>(path: string, body?: unknown) =>
	send<T>("POST", path, body ?? {});
export const put = <T>(path: string, body: unknown) =>
	send<T>("PUT", path, body);
/** Sends a file as it is. */
export const upload = <T = void>(path: string, file: File) =>
	send<T>("POST", path, undefined, file);
export const remove = (path: string) => send<void>("DELETE", path);

/** A key for one write. randomUUID exists only on secure origins, and a studio may run on a plain address at home. */
function newKey(): string {
	return Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) =>
		byte.toString(16).padStart(2, "0"),
	).join("");
}
