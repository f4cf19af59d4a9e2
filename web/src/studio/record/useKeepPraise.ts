import { answer, api } from "../../api/client";
import { useUndo } from "../../ui/Undo";
import type { useAct } from "../useAct";

/** Keeps what is marked of an opened letter or note as praise, else all of it. */
export function useKeepPraise(
	project: number,
	act: ReturnType<typeof useAct>,
	/** The entry, “Letter.12”. */
	entry: string,
	text: string,
) {
	const offer = useUndo();
	const [what, id] = entry.split(".");
	if (what !== "Letter" && what !== "Note") return undefined;
	return () =>
		act.run(async () => {
			const marked = getSelection()?.toString().trim();
			const kept = await answer(
				api.POST("/api/projects/{id}/praise", {
					params: { path: { id: project } },
					body: {
						words: marked && text.includes(marked) ? marked : text.trim(),
						[what === "Letter" ? "letter" : "note"]: Number(id),
					},
				}),
			);
			offer({
				words: "Kept as praise",
				undo: () =>
					act.run(() =>
						answer(
							api.POST("/api/projects/{id}/praise/{praise}/removed", {
								params: { path: { id: project, praise: kept.id } },
								body: { removed: true },
							}),
						),
					),
			});
		});
}
