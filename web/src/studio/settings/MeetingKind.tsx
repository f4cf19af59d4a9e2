import { useState } from "react";
import { answer, api } from "../../api/client";
import type { MeetingKindDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { CountField } from "../../ui/CountField";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { useAct } from "../useAct";

export type Count =
	| "minutes"
	| "step"
	| "buffer"
	| "noticeHours"
	| "daysAhead"
	| "changeHours"
	| "reminderHours";

export const counts: { key: Count; label: string; hint: string }[] = [
	{ key: "minutes", label: "Lasts", hint: "minutes" },
	{ key: "step", label: "Starts every", hint: "minutes" },
	{ key: "buffer", label: "Kept free around it", hint: "minutes" },
	{ key: "noticeHours", label: "At least ahead", hint: "hours" },
	{ key: "daysAhead", label: "At most ahead", hint: "days" },
	{
		key: "changeHours",
		label: "Clients change it until",
		hint: "hours before it",
	},
	{ key: "reminderHours", label: "Reminder", hint: "hours before; 0: none" },
];

export function Kind({
	kind,
	onDone,
}: {
	kind: MeetingKindDto;
	onDone: () => void;
}) {
	const [said, setSaid] = useState(kind);
	const act = useAct();
	const set = (part: Partial<MeetingKindDto>) => setSaid({ ...said, ...part });
	const wrong = (field: string) => act.refusal?.of(field);
	async function run(write: () => Promise<unknown>) {
		if (await act.run(write)) onDone();
	}
	return (
		<div className="grid gap-3 py-3">
			<div className="grid gap-3 md:grid-cols-4">
				<TextField
					label="Name"
					value={said.name}
					wrong={wrong("name")}
					onChange={(e) => set({ name: e.target.value })}
				/>
				<Select
					label="When"
					value={said.when}
					onChange={(e) =>
						set({ when: e.target.value as MeetingKindDto["when"] })
					}
				>
					<option value="BeforeBooking">before booking</option>
					<option value="AfterBooking">after booking</option>
				</Select>
				<Select
					label="Where"
					value={said.place}
					onChange={(e) =>
						set({ place: e.target.value as MeetingKindDto["place"] })
					}
				>
					<option value="Video">by video</option>
					<option value="Phone">by phone</option>
					<option value="Place">at a place</option>
				</Select>
				{said.place === "Place" && (
					<TextField
						label="The place"
						value={said.where}
						wrong={wrong("where")}
						onChange={(e) => set({ where: e.target.value })}
					/>
				)}
				{counts.map(({ key, label, hint }) => (
					<CountField
						key={key}
						label={label}
						hint={hint}
						min={0}
						value={said[key]}
						wrong={wrong(key)}
						onChange={(count) => set({ [key]: count ?? 0 })}
					/>
				))}
				<CountField
					label="Most on one day"
					hint="meetings of all kinds; empty: any"
					min={1}
					value={said.mostPerDay}
					wrong={wrong("mostPerDay")}
					onChange={(count) => set({ mostPerDay: count })}
				/>
			</div>
			<TextArea
				label="Agenda, sent with the invitation"
				rows={2}
				value={said.agenda}
				wrong={wrong("agenda")}
				onChange={(e) => set({ agenda: e.target.value })}
			/>
			<TextArea
				label="Questions beforehand, one a line"
				rows={2}
				value={said.questions}
				wrong={wrong("questions")}
				onChange={(e) => set({ questions: e.target.value })}
			/>
			<Refused of={act.refusal} />
			<div className="flex gap-2">
				<Button
					kind="go"
					disabled={act.busy}
					onClick={() =>
						run(() =>
							kind.id
								? answer(
										api.PUT("/api/meeting-kinds/{id}", {
											params: { path: { id: kind.id } },
											body: said,
										}),
									)
								: answer(api.POST("/api/meeting-kinds", { body: said })),
						)
					}
				>
					Keep the meeting
				</Button>
				{kind.id > 0 && (
					<Button
						disabled={act.busy}
						onClick={() =>
							run(() =>
								answer(
									api.DELETE("/api/meeting-kinds/{id}", {
										params: { path: { id: kind.id } },
									}),
								),
							)
						}
					>
						Offer it no more
					</Button>
				)}
				<Button onClick={onDone}>Close</Button>
			</div>
		</div>
	);
}
