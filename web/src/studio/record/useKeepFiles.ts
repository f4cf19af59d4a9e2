import { useState } from "react";
import { answer, api, upload } from "../../api/client";
import type { KeptDto, PlaceDto } from "../../api/schema";
import { useAct } from "../useAct";

/** A file that was just kept, and where the project itself put it. */
export type JustKept = KeptDto & { name: string };

/** Keeps dropped or chosen files at once, each where it belongs as the project stands. */
export function useKeepFiles(project: number) {
	const [kept, setKept] = useState<JustKept[]>([]);
	const [left, setLeft] = useState(0);
	const act = useAct();
	async function keep(files: File[]) {
		setKept([]);
		for (const [at, file] of files.entries()) {
			setLeft(files.length - at);
			const query = new URLSearchParams({ name: file.name });
			const done = await act.run(async () => {
				const one = await upload<KeptDto>(
					`/api/projects/${project}/files?${query}`,
					file,
				);
				setKept((before) => [...before, { ...one, name: file.name }]);
			});
			if (!done) break;
		}
		setLeft(0);
	}
	const place = (file: JustKept, to: PlaceDto) =>
		act.run(async () => {
			await answer(
				api.POST("/api/projects/{id}/files/{file}/place", {
					params: { path: { id: project, file: file.id } },
					body: to,
				}),
			);
			setKept((before) =>
				before.map((one) => (one.id === file.id ? { ...one, ...to } : one)),
			);
		});
	const takeBack = (file: JustKept) =>
		act.run(async () => {
			await answer(
				api.POST("/api/projects/{id}/files/{file}/removed", {
					params: { path: { id: project, file: file.id } },
					body: { removed: true },
				}),
			);
			setKept((before) => before.filter((one) => one.id !== file.id));
		});
	return {
		keep,
		kept,
		left,
		refusal: act.refusal,
		place,
		takeBack,
		close: () => setKept([]),
	};
}
