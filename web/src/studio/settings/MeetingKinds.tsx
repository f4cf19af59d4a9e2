import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../../api/client";
import type { MeetingKindDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Section } from "../templates/Section";
import { Kind } from "./MeetingKind";

const fresh: MeetingKindDto = {
	id: 0,
	name: "",
	when: "BeforeBooking",
	place: "Video",
	where: "",
	minutes: 30,
	step: 30,
	buffer: 15,
	noticeHours: 24,
	daysAhead: 28,
	mostPerDay: null,
	changeHours: 12,
	reminderHours: 24,
	agenda: "",
	questions: "",
	edition: 0,
};

/** Kinds of meeting that clients choose a time for. */
export function MeetingKinds() {
	const [open, setOpen] = useState<number>();
	const kinds = useQuery({
		queryKey: ["meeting-kinds"],
		queryFn: () => answer(api.GET("/api/meeting-kinds")),
	});
	return (
		<Section
			title="Meetings"
			under={kinds.data?.map((one) => one.name).join(", ") ?? ""}
		>
			<ul>
				{kinds.data?.map((kind) => (
					<li key={kind.id} className="border-b border-hair py-1.5">
						<Button
							kind="line"
							className="font-[600]"
							aria-expanded={open === kind.id}
							onClick={() => setOpen(open === kind.id ? undefined : kind.id)}
						>
							{kind.name}
						</Button>{" "}
						<span className="under">
							{kind.minutes} minutes,{" "}
							{kind.when === "BeforeBooking"
								? "before booking"
								: "after booking"}
						</span>
						{open === kind.id && (
							<Kind
								key={kind.edition}
								kind={kind}
								onDone={() => setOpen(undefined)}
							/>
						)}
					</li>
				))}
			</ul>
			{open === 0 ? (
				<Kind kind={fresh} onDone={() => setOpen(undefined)} />
			) : (
				<Button className="mt-3" onClick={() => setOpen(0)}>
					Add a kind of meeting
				</Button>
			)}
		</Section>
	);
}
