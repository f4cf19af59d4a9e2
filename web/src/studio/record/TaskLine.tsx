import { answer, api } from "../../api/client";
import type { SheetTaskDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Tick } from "../../ui/Tick";
import { Tip } from "../../ui/Tip";
import { fulfilments } from "../FulfilmentSelect";
import { useAct } from "../useAct";
import { useTaskDone } from "../useTaskDone";

/** One open task with its parts. */
export function TaskLine({
	project,
	task,
	onOpen,
}: {
	project: number;
	task: SheetTaskDto;
	onOpen: () => void;
}) {
	const { done } = useTaskDone(project);
	const act = useAct("below");
	const { title, doneBy, words } = task.kept;
	const steps = words?.steps ?? [];
	return (
		<div className="py-[3px] text-[14.3px]">
			<div className="flex gap-2.5">
				<Tick
					hidden
					label={`${title} is done`}
					checked={false}
					onChange={() => done(task.id, title)}
				/>
				<span className="min-w-0">
					<Tip
						words={[task.counted, doneBy && `done when ${fulfilments[doneBy]}`]
							.filter(Boolean)
							.join("; ")}
					>
						<Button
							kind="line"
							className="text-left break-words hover:underline"
							onClick={onOpen}
						>
							{title}
						</Button>
					</Tip>
					{task.about && <span className="under block">{task.about}</span>}
				</span>
				<span
					className={`ml-auto whitespace-nowrap ${task.late ? "font-[650]" : "text-soft"}`}
				>
					{task.due}
				</span>
			</div>
			{steps.length > 0 && (
				<ul aria-label={`Parts of ${title}`} className="pl-[26px]">
					{steps.map((step, at) => (
						<li key={at}>
							<Tick
								label={step.title}
								className="py-[3px]"
								checked={step.done}
								onChange={(checked) =>
									act.run(() =>
										answer(
											api.POST("/api/projects/{id}/tasks/{task}/step", {
												params: { path: { id: project, task: task.id } },
												body: { step: at, done: checked },
											}),
										),
									)
								}
							/>
						</li>
					))}
				</ul>
			)}
		</div>
	);
}
