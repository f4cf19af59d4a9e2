import { useState } from "react";
import { answer, api } from "../../api/client";
import type { MeetingDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { MomentField } from "../../ui/MomentField";
import { Refused } from "../../ui/Refused";
import { TextArea } from "../../ui/TextArea";
import { useKept } from "../../ui/useKept";
import { useAct } from "../useAct";
import { useMeetingSaid } from "../useMeetingSaid";

/** A meeting opened whole: agenda, answers, private notes, moving and cancelling. */
export function MeetingPane({
	project,
	meeting,
	onSummary,
}: {
	project: number;
	meeting: MeetingDto;
	onSummary: () => void;
}) {
	const [words, change, forget] = useKept(`meeting:${meeting.id}`, {
		notes: meeting.notes,
		agenda: meeting.agenda,
	});
	const [start, setStart] = useState<string>();
	const act = useAct();
	const say = useMeetingSaid(act, project, meeting);
	const params = { path: { id: project, meeting: meeting.id } };
	return (
		<div className="grid gap-3">
			<p className="break-words">{meeting.place}</p>
			{meeting.answers.map((one) => (
				<p key={one.question}>
					<span className="under block">{one.question}</span>
					{one.text}
				</p>
			))}
			<TextArea
				label="Agenda, which the client sees"
				rows={2}
				value={words.agenda}
				wrong={act.refusal?.of("agenda")}
				onChange={(e) => change({ ...words, agenda: e.target.value })}
			/>
			<TextArea
				label="Notes, yours alone"
				rows={6}
				value={words.notes}
				wrong={act.refusal?.of("notes")}
				onChange={(e) => change({ ...words, notes: e.target.value })}
			/>
			<Refused of={act.refusal} />
			<div className="flex flex-wrap gap-2">
				{meeting.isStanding && (
					<Button
						kind="go"
						disabled={act.busy}
						onClick={async () => (await say.held(words)) && forget()}
					>
						It was held
					</Button>
				)}
				{meeting.isStanding && meeting.isOver && (
					<Button disabled={act.busy} onClick={say.missed}>
						It was not
					</Button>
				)}
				<Button
					disabled={act.busy}
					onClick={async () =>
						(await act.run(() =>
							answer(
								api.PUT("/api/projects/{id}/meetings/{meeting}", {
									params,
									body: words,
								}),
							),
						)) && forget()
					}
				>
					Keep the notes
				</Button>
				{meeting.isOver && (
					<Button onClick={onSummary}>Write them a summary</Button>
				)}
			</div>
			{meeting.isStanding && !meeting.isOver && (
				<div className="flex flex-wrap items-end gap-2 border-t border-hair pt-3">
					<MomentField
						label="Move it to"
						value={start ?? ""}
						wrong={act.refusal?.of("start")}
						onChange={(at) => setStart(at)}
					/>
					<Button
						disabled={act.busy || !start}
						onClick={() =>
							act.run(() =>
								answer(
									api.POST("/api/projects/{id}/meetings/{meeting}/move", {
										params,
										body: { start: start ?? "" },
									}),
								),
							)
						}
					>
						Move and tell them
					</Button>
					<Button
						disabled={act.busy}
						onClick={() =>
							act.run(() =>
								answer(
									api.POST("/api/projects/{id}/meetings/{meeting}/cancel", {
										params,
									}),
								),
							)
						}
					>
						Cancel and tell them
					</Button>
				</div>
			)}
		</div>
	);
}
