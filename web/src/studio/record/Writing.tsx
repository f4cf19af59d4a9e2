import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { answer, api } from "../../api/client";
import type { SlipSort } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Choice, Choices } from "../../ui/Choice";
import { LineField } from "../../ui/LineField";
import { Refused } from "../../ui/Refused";
import { useUndo } from "../../ui/Undo";
import { useKept } from "../../ui/useKept";
import { useAct } from "../useAct";

const sorts: Record<SlipSort, string> = {
	Note: "Note",
	Task: "Task",
	Call: "Call",
};

/** The one writing field on today's rule: it takes a note, a task with its day, or a call, and says which it becomes. */
export function Writing({
	project,
	onWrite,
}: {
	project: number;
	onWrite: () => void;
}) {
	const [text, change, forget] = useKept(`note:${project}`, "");
	const [chosen, setChosen] = useState<SlipSort>();
	const field = useRef<HTMLInputElement>(null);
	const act = useAct();
	const offer = useUndo();
	const reading = useReading(project, text, chosen);
	const sort = chosen ?? reading?.sort ?? "Note";
	async function keep() {
		const written = { text, as: chosen ?? null };
		// the field is free at once: whoever writes goes on writing, and loses nothing of it
		change("");
		forget();
		setChosen(undefined);
		field.current?.focus();
		const kept = await act.run(async () => {
			const slip = await answer(
				api.POST("/api/slips", {
					body: { ...written, project, onRecord: true },
				}),
			);
			offer({
				words: slip.words,
				undo: () =>
					act.run(() =>
						answer(
							api.POST("/api/slips/{id}/undo", {
								params: { path: { id: slip.id } },
							}),
						),
					),
			});
		});
		if (!kept && !field.current?.value) change(written.text);
	}
	return (
		<div className="my-1 mb-3 border-y-[1.5px] border-ink bg-sheet">
			<form
				className="flex flex-wrap items-center gap-2.5 py-1.5 pr-2.5"
				onSubmit={(event) => {
					event.preventDefault();
					keep();
				}}
			>
				<span className="w-[92px] pr-2.5 text-right font-head text-[13.5px] font-[650] max-md:w-auto max-md:pl-2">
					Today
				</span>
				<LineField
					ref={field}
					id="write-here"
					label="Write a note, a task with its day, or a call"
					aria-describedby="write-becomes"
					placeholder="A note, a task with its day, or “call” and what was said"
					value={text}
					onChange={(e) => change(e.target.value)}
				/>
				{text.trim() ? (
					<Button kind="go" type="submit" disabled={act.busy}>
						Keep this {sorts[sort].toLowerCase()}
					</Button>
				) : (
					<Button className="max-lg:hidden" onClick={onWrite}>
						Write a letter
					</Button>
				)}
				{text.trim() && (
					<div className="flex w-full flex-wrap items-center gap-x-3 gap-y-1.5 pl-[102px] max-md:pl-2">
						<Choices
							label="It becomes"
							hidden
							className="flex gap-1.5"
							value={sort}
							onChange={(value) => setChosen(value as SlipSort)}
						>
							{Object.entries(sorts).map(([value, words]) => (
								<Choice key={value} value={value} chip>
									{words}
								</Choice>
							))}
						</Choices>
						<span
							id="write-becomes"
							role="status"
							className="min-w-0 flex-1 text-small break-words text-soft"
						>
							{reading && (
								<>
									“{reading.text}” becomes {reading.becomes}
								</>
							)}
						</span>
					</div>
				)}
			</form>
			<Refused of={act.refusal} />
		</div>
	);
}

/** What the server reads of it, a moment after the last key. */
function useReading(
	project: number,
	text: string,
	chosen: SlipSort | undefined,
) {
	const [asked, setAsked] = useState("");
	useEffect(() => {
		const timer = setTimeout(() => setAsked(text.trim()), 150);
		return () => clearTimeout(timer);
	}, [text]);
	const reading = useQuery({
		queryKey: ["slip", asked, project, chosen ?? "", "record"],
		queryFn: () =>
			answer(
				api.GET("/api/slips/reading", {
					params: {
						query: { text: asked, project, as: chosen, onRecord: true },
					},
				}),
			),
		enabled: asked.length > 0,
		placeholderData: (before) => before,
	});
	return text.trim() ? reading.data : undefined;
}
