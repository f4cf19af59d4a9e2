import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { MomentField } from "../../ui/MomentField";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";
import { useAct } from "../useAct";
import { useKinds } from "./useMeetingKinds";

export function SetMeeting({
	record,
	onDone,
}: {
	record: RecordDto;
	onDone: () => void;
}) {
	const kinds = useKinds();
	const [said, setSaid] = useState({ kind: "", start: "", link: "" });
	const act = useAct();
	const kind = said.kind || String(kinds.data?.[0]?.id ?? "");
	const chosen = kinds.data?.find((one) => String(one.id) === kind);
	async function keep(event: FormEvent) {
		event.preventDefault();
		const done = await act.run(() =>
			answer(
				api.POST("/api/projects/{id}/meetings", {
					params: { path: { id: record.id } },
					body: {
						kind: Number(kind),
						start: said.start,
						link: chosen?.place === "Video" ? said.link : null,
					},
				}),
			),
		);
		if (done) onDone();
	}
	return (
		<form onSubmit={keep} className="grid gap-2 pt-1">
			<Select
				label="Meeting"
				value={kind}
				onChange={(e) => setSaid({ ...said, kind: e.target.value })}
			>
				{kinds.data?.map((one) => (
					<option key={one.id} value={one.id}>
						{one.name}
					</option>
				))}
			</Select>
			<MomentField
				label="When, by the studio's clock"
				value={said.start}
				wrong={act.refusal?.of("start")}
				onChange={(at) => setSaid({ ...said, start: at })}
			/>
			{chosen?.place === "Video" && (
				<TextField
					label="Your own video link"
					hint="a room is opened where you leave it empty"
					value={said.link}
					wrong={act.refusal?.of("link")}
					onChange={(e) => setSaid({ ...said, link: e.target.value })}
				/>
			)}
			<Refused of={act.refusal} />
			<div>
				<Button kind="go" type="submit" disabled={act.busy || !said.start}>
					Set the meeting
				</Button>
			</div>
		</form>
	);
}
