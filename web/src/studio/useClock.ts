import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../api/client";
import type { ClockStoppedDto } from "../api/schema";
import { useUndo } from "../ui/Undo";
import { useAct } from "./useAct";

/** The one clock: what it runs for, and how it is started and stopped. What it ran is kept, and can be taken back. */
export function useClock() {
	const clock = useQuery({
		queryKey: ["over", "clock"],
		queryFn: () => answer(api.GET("/api/work-clock")),
	});
	const act = useAct("below");
	const offer = useUndo();
	const tell = (stopped: ClockStoppedDto) => {
		if (stopped.kept)
			offer({
				words: stopped.kept,
				undo: () =>
					act.run(async () => {
						for (const hours of stopped.hours)
							await answer(
								api.POST("/api/projects/{id}/hours/{hours}/removed", {
									params: { path: { id: stopped.project, hours } },
									body: { removed: true },
								}),
							);
					}),
			});
	};
	const run = (write: () => Promise<ClockStoppedDto>) =>
		act.run(async () => tell(await write()));
	return {
		data: clock.data,
		/** When that was fetched, by the browser's own clock. */
		at: clock.dataUpdatedAt,
		/** Whether hours are kept in this studio at all. */
		can: clock.data !== undefined && !clock.data.off,
		busy: act.busy,
		start: (project: number, task: number | null = null) =>
			run(() =>
				answer(
					api.POST("/api/work-clock", { body: { project, task, words: "" } }),
				),
			),
		stop: () => run(() => answer(api.POST("/api/work-clock/stop"))),
		tell,
	};
}
