import { useState } from "react";
import { answer, api } from "../../api/client";
import type { RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { useAct } from "../useAct";
import { Block } from "./Block";
import { SetMeeting } from "./SetMeeting";

/** Meetings of the project, and the two ways to a new one: the client chooses, or it is set. */
export function Meetings({
	record,
	onOffer,
	onOpen,
}: {
	record: RecordDto;
	onOffer: () => void;
	onOpen: (meeting: number) => void;
}) {
	const [setting, setSetting] = useState(false);
	const act = useAct("below");
	const standing = record.sheet.meetings.all.filter((one) => one.isStanding);
	return (
		<Block
			title="Meetings"
			aside={
				!record.path.ended && (
					<span className="flex gap-3">
						<Button kind="word" onClick={onOffer}>
							let them choose
						</Button>
						<Button
							kind="word"
							aria-expanded={setting}
							onClick={() => setSetting(!setting)}
						>
							set one
						</Button>
					</span>
				)
			}
		>
			{record.sheet.meetings.offered && (
				<p className="text-[14.3px]">
					{record.sheet.meetings.offered}: with the client, who has not chosen a
					time yet.{" "}
					<Button
						kind="word"
						size="small"
						disabled={act.busy}
						onClick={() =>
							act.run(() =>
								answer(
									api.POST("/api/projects/{id}/meetings/offer/back", {
										params: { path: { id: record.id } },
									}),
								),
							)
						}
					>
						take it back
					</Button>
				</p>
			)}
			{standing.map((meeting) => (
				<Button
					kind="line"
					className="block w-full py-1 text-[14.3px] hover:underline"
					key={meeting.id}
					onClick={() => onOpen(meeting.id)}
				>
					<b className="font-[650]">{meeting.name}</b>, {meeting.when}{" "}
					<span className="text-soft">{meeting.state}</span>
				</Button>
			))}
			{setting && (
				<SetMeeting record={record} onDone={() => setSetting(false)} />
			)}
		</Block>
	);
}
