import { Link } from "react-router";
import { answer, api } from "../../api/client";
import type { TodayDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { useUndo } from "../../ui/Undo";
import { useAct } from "../useAct";
import { Head } from "./Head";

/** Notes that were pinned here, to stay in sight until they are taken down. */
export function Pinned({ notes }: { notes: TodayDto["day"]["pinned"] }) {
	const act = useAct("below");
	const offer = useUndo();
	if (notes.length === 0) return null;
	const set = (note: (typeof notes)[number], pinned: boolean) =>
		answer(
			api.POST("/api/projects/{id}/notes/{note}/pinned", {
				params: { path: { id: note.project, note: note.note } },
				body: { pinned },
			}),
		);
	return (
		<section aria-labelledby="pinned">
			<Head id="pinned" title="Pinned" low />
			{notes.map((note) => (
				<div
					key={note.note}
					className="flex items-start gap-3 border-b border-hair py-2"
				>
					<span className="min-w-0">
						<span className="line-clamp-4 whitespace-pre-line wrap-anywhere">
							{note.text}
						</span>
						<Link
							className="under block"
							to={`/projects/${note.project}?open=Note.${note.note}`}
						>
							{note.title}
						</Link>
					</span>
					<Button
						kind="word"
						size="small"
						className="ml-auto"
						disabled={act.busy}
						onClick={() =>
							act.run(async () => {
								await set(note, false);
								offer({
									words: `Taken down: ${note.text.slice(0, 60)}`,
									undo: () => act.run(() => set(note, true)),
								});
							})
						}
					>
						take down<span className="sr-only">: {note.text.slice(0, 60)}</span>
					</Button>
				</div>
			))}
		</section>
	);
}
