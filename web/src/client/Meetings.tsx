import { lazy, useState } from "react";
import { answer, api } from "../api/client";
import type { Refusal } from "../api/refusal";
import type { ClientMeetingDto, ClientPageDto } from "../api/schema";
import { Button } from "../ui/Button";
import { Refused } from "../ui/Refused";
import { Later } from "./Later";

const PickTime = lazy(() => import("./PickTime"));

/** Meetings that are still to come; moved and cancelled by the client within the owner's notice. */
export default function Meetings({
	page,
	link,
	reload,
}: {
	page: ClientPageDto;
	link: string;
	reload: () => Promise<void>;
}) {
	return (
		<section aria-label="Meetings" className="pb-8">
			{page.meetings.all.map((meeting) => (
				<Meeting
					key={`${meeting.id}${meeting.when}`}
					meeting={meeting}
					page={page}
					link={link}
					reload={reload}
				/>
			))}
		</section>
	);
}

function Meeting({
	meeting,
	page,
	link,
	reload,
}: {
	meeting: ClientMeetingDto;
	page: ClientPageDto;
	link: string;
	reload: () => Promise<void>;
}) {
	const [doing, setDoing] = useState<"move" | "cancel">();
	const [refusal, setRefusal] = useState<Refusal>();
	async function cancel() {
		try {
			await answer(
				api.POST("/p/{link}/api/meetings/{meeting}/cancel", {
					params: { path: { link, meeting: meeting.id } },
				}),
			);
			await reload();
		} catch (error) {
			setRefusal(error as Refusal);
		}
	}
	return (
		<div className="max-w-2xl border-l-[6px] border-brand bg-plaster p-4">
			<h2>{meeting.name}</h2>
			<p className="pt-1 font-[650]">{meeting.when}</p>
			<p className="break-words">{meeting.place}</p>
			{meeting.agenda && <p className="pt-1 text-soft">{meeting.agenda}</p>}
			{meeting.canChange ? (
				<div className="flex flex-wrap gap-2 pt-3">
					<Button
						onClick={() => setDoing(doing === "move" ? undefined : "move")}
					>
						Move it
					</Button>
					<Button onClick={() => setDoing("cancel")}>Cancel it</Button>
					<span className="under self-center">until {meeting.changeUntil}</span>
				</div>
			) : (
				<p className="under pt-2">
					It is too near to be changed here. Write to {page.studio.owner}, or
					ring.
				</p>
			)}
			<Refused of={refusal} />
			{doing === "cancel" && (
				<div className="pt-3">
					<p>Cancel this meeting? {page.studio.owner} is told at once.</p>
					<Button kind="brand" className="mt-2" onClick={cancel}>
						Cancel the meeting
					</Button>
				</div>
			)}
			{doing === "move" && (
				<div className="mt-4 bg-sheet p-4">
					<Later>
						<PickTime link={link} moving={meeting.id} onDone={reload} />
					</Later>
				</div>
			)}
		</div>
	);
}
