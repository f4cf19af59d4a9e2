import { useState } from "react";
import { answer, api } from "../../api/client";
import type { RecordDto } from "../../api/schema";
import { Select } from "../../ui/Select";
import { Carried } from "./Carried";
import { useKinds } from "./useMeetingKinds";

/** Lets the client choose a time, with a letter. */
export function OfferMeeting({
	record,
	onClose,
}: {
	record: RecordDto;
	onClose: () => void;
}) {
	const kinds = useKinds();
	const [chosen, setChosen] = useState("");
	const usual = kinds.data?.find(
		(one) => (one.when === "AfterBooking") === record.path.booked,
	);
	const kind = chosen || String(usual?.id ?? kinds.data?.[0]?.id ?? "");
	return (
		<Carried
			project={record.id}
			title="Let them choose a time"
			template="meeting-choice"
			button="Send the choice of times"
			disabled={!kind}
			onClose={onClose}
			send={(letter) =>
				answer(
					api.POST("/api/projects/{id}/meetings/offer", {
						params: { path: { id: record.id } },
						body: {
							kind: Number(kind),
							...letter,
						},
					}),
				)
			}
		>
			{() => (
				<Select
					label="Meeting"
					value={kind}
					onChange={(e) => setChosen(e.target.value)}
				>
					{kinds.data?.map((one) => (
						<option key={one.id} value={one.id}>
							{one.name}, {one.minutes} minutes
						</option>
					))}
				</Select>
			)}
		</Carried>
	);
}
