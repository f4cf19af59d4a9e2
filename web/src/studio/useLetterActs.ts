import { answer, api } from "../api/client";
import { useUndo } from "../ui/Undo";
import type { useAct } from "./useAct";
import { useOnItsWay } from "./useOnItsWay";

/** Skips a letter that waits for an OK, or sends it, and offers to take that back while it has not left the house. */
export function useLetterActs(
	act: ReturnType<typeof useAct>,
	letter: number,
	subject: string,
) {
	const offer = useUndo();
	const onItsWay = useOnItsWay();
	const params = { path: { id: letter } };
	const skipped = (skipped: boolean) =>
		act.run(() =>
			answer(
				api.POST("/api/letters/{id}/skipped", { params, body: { skipped } }),
			),
		);
	return {
		async skip() {
			const done = await skipped(true);
			if (done)
				offer({ words: `Skipped: ${subject}`, undo: () => skipped(false) });
			return done;
		},
		/** With the text as it is; where it was edited, that goes out. */
		async send(text: { subject: string | null; body: string | null }) {
			const sent = await act.run(() =>
				answer(api.POST("/api/letters/{id}/release", { params, body: text })),
			);
			if (sent) onItsWay(letter, subject);
			return sent;
		},
	};
}
