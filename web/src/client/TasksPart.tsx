import { useState } from "react";
import { answer, api } from "../api/client";
import type { ClientTaskDto } from "../api/schema";
import { Alert } from "../ui/Alert";
import { Fold } from "../ui/Fold";
import { Tick } from "../ui/Tick";
import { AskPart } from "./AskPart";
import type { PartProps } from "./Parts";

/** What is the client's to do: open first, each with its day, what it is about and its parts. */
export default function TasksPart({ page, link, reload, files }: PartProps) {
	const [wrong, setWrong] = useState<string>();
	const tasks = page.parts.tasks ?? [];
	const open = tasks.filter((task) => !task.done);
	const done = tasks.filter((task) => task.done);
	const say = async (write: () => Promise<unknown>) => {
		setWrong(undefined);
		try {
			await write();
			await reload();
		} catch (error) {
			setWrong((error as Error).message);
		}
	};
	const tick = (task: ClientTaskDto, to: boolean) =>
		say(() =>
			answer(
				api.POST("/p/{link}/api/tasks/{task}/done", {
					params: { path: { link, task: task.id } },
					body: { done: to },
				}),
			),
		);
	return (
		<section aria-label="Your tasks">
			<h2 className="rule pb-1.5">Your tasks</h2>
			{open.map((task) => (
				<div
					key={task.id}
					id={`task-${task.id}`}
					className="border-b border-hair py-2.5"
				>
					<Tick
						label={
							<>
								{task.title}
								{task.due && (
									<span className={task.late ? "font-[650]" : "text-soft"}>
										, {task.due}
									</span>
								)}
							</>
						}
						under={task.finished && `Done when: ${task.finished}`}
						checked={false}
						disabled={files !== undefined}
						onChange={() => tick(task, true)}
					/>
					{task.description && (
						<p className="pt-1 pl-[26px] break-words whitespace-pre-line">
							{task.description}
						</p>
					)}
					{task.steps.length > 0 && (
						<ul
							aria-label={`Parts of ${task.title}`}
							className="pt-1 pl-[26px]"
						>
							{task.steps.map((step, at) => (
								<li key={at}>
									<Tick
										label={step.title}
										className="py-1"
										checked={step.done}
										disabled={files !== undefined}
										onChange={(to) =>
											say(() =>
												answer(
													api.POST("/p/{link}/api/tasks/{task}/step", {
														params: { path: { link, task: task.id } },
														body: { step: at, done: to },
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
			))}
			{open.length === 0 && (
				<p role="status" className="py-2">
					{done.length > 0
						? "Thank you, everything here is done."
						: "There is nothing for you to do yet."}
				</p>
			)}
			{wrong && <Alert>{wrong}</Alert>}
			{done.length > 0 && (
				<Fold className="pt-2 text-soft" line={`${done.length} done`}>
					{done.map((task) => (
						<Tick
							key={task.id}
							label={`${task.title}, ${task.done}`}
							className="py-1"
							checked
							disabled={files !== undefined}
							onChange={() => tick(task, false)}
						/>
					))}
				</Fold>
			)}
			{!files && (
				<AskPart
					part="Tasks"
					link={link}
					owner={page.studio.owner}
					reload={reload}
				/>
			)}
		</section>
	);
}
