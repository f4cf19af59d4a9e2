import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { MeetingKindDto } from "../../api/schema";
import { Alert, Select, TextArea, TextField } from "../../ui/Fields";
import { get, post, put, remove } from "../../ui/http";
import { Section } from "../templates/Section";
import { useAct } from "../useAct";

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

type Count =
	| "minutes"
	| "step"
	| "buffer"
	| "noticeHours"
	| "daysAhead"
	| "changeHours"
	| "reminderHours";

const counts: { key: Count; label: string; hint: string }[] = [
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

/** Kinds of meeting that clients choose a time for. */
export function MeetingKinds() {
	const [open, setOpen] = useState<number>();
	const kinds = useQuery({
		queryKey: ["meeting-kinds"],
		queryFn: () => get<MeetingKindDto[]>("/api/meeting-kinds"),
	});
	return (
		<Section
			title="Meetings"
			under={kinds.data?.map((one) => one.name).join(", ") ?? ""}
		>
			<ul>
				{kinds.data?.map((kind) => (
					<li key={kind.id} className="border-b border-hair py-1.5">
						<button
							type="button"
							className="font-[600]"
							aria-expanded={open === kind.id}
							onClick={() => setOpen(open === kind.id ? undefined : kind.id)}
						>
							{kind.name}
						</button>{" "}
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
				<button type="button" className="btn mt-3" onClick={() => setOpen(0)}>
					Add a kind of meeting
				</button>
			)}
		</Section>
	);
}

function Kind({ kind, onDone }: { kind: MeetingKindDto; onDone: () => void }) {
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
					<TextField
						key={key}
						label={label}
						hint={hint}
						type="number"
						min={0}
						value={said[key]}
						wrong={wrong(key)}
						onChange={(e) => set({ [key]: Number(e.target.value) })}
					/>
				))}
				<TextField
					label="Most on one day"
					hint="meetings of all kinds; empty: any"
					type="number"
					min={1}
					value={said.mostPerDay ?? ""}
					wrong={wrong("mostPerDay")}
					onChange={(e) =>
						set({ mostPerDay: e.target.value ? Number(e.target.value) : null })
					}
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
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
			<div className="flex gap-2">
				<button
					type="button"
					className="btn btn-go"
					disabled={act.busy}
					onClick={() =>
						run(() =>
							kind.id
								? put(`/api/meeting-kinds/${kind.id}`, said)
								: post("/api/meeting-kinds", said),
						)
					}
				>
					Keep the meeting
				</button>
				{kind.id > 0 && (
					<button
						type="button"
						className="btn"
						disabled={act.busy}
						onClick={() => run(() => remove(`/api/meeting-kinds/${kind.id}`))}
					>
						Offer it no more
					</button>
				)}
				<button type="button" className="btn" onClick={onDone}>
					Close
				</button>
			</div>
		</div>
	);
}
