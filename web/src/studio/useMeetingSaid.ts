import { answer, api } from "../api/client";
import { useUndo } from "../ui/Undo";
import type { useAct } from "./useAct";

/** Says of a meeting whose time is over whether it was held, and offers to take that back. */
export function useMeetingSaid(
	act: ReturnType<typeof useAct>,
	project: number,
	meeting: { id: number; name: string },
) {
	const offer = useUndo();
	const params = { path: { id: project, meeting: meeting.id } };
	const again = () =>
		act.run(() =>
			answer(
				api.POST("/api/projects/{id}/meetings/{meeting}/again", { params }),
			),
		);
	return {
		/** With what was written meanwhile; what is left out stays as it is. */
		async held(words: { notes: string | null; agenda: string | null }) {
			const said = await act.run(() =>
				answer(
					api.POST("/api/projects/{id}/meetings/{meeting}/held", {
						params,
						body: words,
					}),
				),
			);
			if (said) offer({ words: `Held: ${meeting.name}`, undo: again });
			return said;
		},
		async missed() {
			const said = await act.run(() =>
				answer(
					api.POST("/api/projects/{id}/meetings/{meeting}/missed", { params }),
				),
			);
			if (said)
				offer({ words: `Did not take place: ${meeting.name}`, undo: again });
		},
	};
}
