import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { MomentField } from "../../ui/MomentField";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
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
	const [said, setSaid] = useState({ kind: "", start: "" });
	const act = useAct();
	const kind = said.kind || String(kinds.data?.[0]?.id ?? "");
	async function keep(event: FormEvent) {
		event.preventDefault();
		const done = await act.run(() =>
			answer(
				api.POST("/api/projects/{id}/meetings", {
					params: { path: { id: record.id } },
					body: {
						kind: Number(kind),
						start: said.start,
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
			<Refused of={act.refusal} />
			<div>
				<Button kind="go" type="submit" disabled={act.busy || !said.start}>
					Set the meeting
				</Button>
			</div>
		</form>
	);
}
