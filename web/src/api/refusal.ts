/** A refusal of the server (RFC 9457), with what is wrong by field. */
export class Refusal extends Error {
	constructor(
		/** Its HTTP status; 0 where no answer came at all. */
		readonly status: number,
		message: string,
		readonly errors: Record<string, string[]> = {},
		readonly theirs: unknown = undefined,
		/** The password was right, and a one-time code is asked for. */
		readonly needsCode = false,
	) {
		super(message);
	}

	private readonly told = new Set<string>();

	/** What is wrong with one field; nothing when it is fine. Who asks tells it beside the field. */
	of(field: string): string | undefined {
		this.told.add(field);
		return this.errors[field]?.join(" ");
	}

	/** What no field has asked for, so that it is said once and by somebody; nothing when all of it is told. */
	get rest(): string | undefined {
		if (!this.hasFields) return this.message;
		const left = Object.entries(this.errors).filter(
			([field]) => !this.told.has(field),
		);
		return left.flatMap(([, words]) => words).join(" ") || undefined;
	}

	/** Whether it names what is wrong field by field, where each says it itself. */
	get hasFields(): boolean {
		return Object.keys(this.errors).length > 0;
	}

	static unreached() {
		return new Refusal(
			0,
			"Gesamt cannot be reached. What you typed is still here; try again in a moment.",
		);
	}

	static async from(answer: Response): Promise<Refusal> {
		try {
			const problem = JSON.parse(await answer.text());
			return new Refusal(
				answer.status,
				problem.detail ?? problem.title ?? "It was refused.",
				problem.errors,
				problem.theirs,
				problem.needsCode === true,
			);
		} catch {
			return new Refusal(answer.status, withoutWords(answer.status));
		}
	}
}

/** Said of an answer that says nothing itself. */
function withoutWords(status: number): string {
	switch (status) {
		case 413:
			return "This is too large.";
		case 429:
			return "That was a little often. Wait a minute and try again.";
		default:
			return "Something went wrong here. Nothing was lost; try again.";
	}
}
