import { Link } from "react-router";
import type { TodayDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { useAct } from "../useAct";
import { useMeetingSaid } from "../useMeetingSaid";

/** A meeting of the day; once its time is over it asks whether it was held. */
export function DayMeeting({
	meeting,
}: {
	meeting: TodayDto["day"]["meetings"][number];
}) {
	const act = useAct();
	const say = useMeetingSaid(act, meeting.project ?? 0, {
		id: meeting.meeting,
		name: meeting.title,
	});
	return (
		<div className="border-b border-hair py-2">
			<Link
				to={
					meeting.project
						? `/projects/${meeting.project}?open=Meeting.${meeting.meeting}`
						: "/week"
				}
				data-walk
				className="flex gap-3"
			>
				<span>
					<b className="font-[650]">{meeting.title}</b>
					<span className="under block">{meeting.detail}</span>
				</span>
				<time className="ml-auto whitespace-nowrap">{meeting.when}</time>
			</Link>
			{meeting.isOver && (
				<fieldset
					aria-label={`${meeting.title}: was it held?`}
					className="flex flex-wrap items-center gap-2 pt-1.5"
				>
					<span className="font-[650]">Was it held?</span>
					<Button
						disabled={act.busy}
						onClick={() => say.held({ notes: null, agenda: null })}
					>
						It was held
					</Button>
					<Button disabled={act.busy} onClick={say.missed}>
						It was not
					</Button>
				</fieldset>
			)}
			<Refused of={act.refusal} />
		</div>
	);
}
