import { answer, api } from "../api/client";
import { useUndo } from "../ui/Undo";
import { useAct } from "./useAct";

/** Says that a letter is on its way, and offers to take it back while it has not left the house. */
export function useOnItsWay() {
	const offer = useUndo();
	const act = useAct("below");
	return (letter: number, subject: string) =>
		offer({
			words: `On its way: ${subject}`,
			undo: () =>
				act.run(() =>
					answer(
						api.POST("/api/letters/{id}/take-back", {
							params: { path: { id: letter } },
						}),
					),
				),
		});
}
