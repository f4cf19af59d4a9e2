import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { SessionDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { CountField } from "../../ui/CountField";
import { FilePick } from "../../ui/FilePick";
import { MomentField } from "../../ui/MomentField";
import { Refused } from "../../ui/Refused";
import { TextField } from "../../ui/TextField";
import { Section } from "../templates/Section";
import { useAct } from "../useAct";

/** Outside calendars: whatever is in them is not offered to clients. */
export function Calendars() {
	const [said, setSaid] = useState({ name: "", address: "" });
	const act = useAct();
	const session = useQuery<SessionDto>({ queryKey: ["session"] });
	const calendars = useQuery({
		queryKey: ["calendars"],
		queryFn: () => answer(api.GET("/api/calendars")),
	});
	const add = (content: string | null) =>
		act.run(async () => {
			await answer(
				api.POST("/api/calendars", {
					body: {
						name: said.name,
						address: content === null ? said.address : null,
						content,
					},
				}),
			);
			setSaid({ name: "", address: "" });
		});
	return (
		<Section
			title="Outside calendars"
			under="what is in them is taken, and not offered"
		>
			<ul>
				{calendars.data?.map((one) => (
					<li key={one.id} className="border-b border-hair py-1.5">
						<b className="font-[650]">{one.name}</b>{" "}
						<span className="under">
							{one.address ?? "a file"}, {one.busyTimes} time
							{one.busyTimes === 1 ? "" : "s"} taken
							{one.fetched && `, read ${one.fetched}`}
						</span>{" "}
						<Button
							kind="word"
							size="small"
							onClick={() =>
								act.run(() =>
									answer(
										api.DELETE("/api/calendars/{id}", {
											params: { path: { id: one.id } },
										}),
									),
								)
							}
						>
							take out<span className="sr-only"> {one.name}</span>
						</Button>
						{one.problem && (
							<p className="font-[650]">
								{one.problem} What was known of it stays taken.
							</p>
						)}
					</li>
				))}
				{calendars.data?.length === 0 && (
					<li className="py-2 text-soft">
						None yet. Subscribe to one by its .ics address, or take one from a
						file.
					</li>
				)}
			</ul>
			<div className="flex flex-wrap items-end gap-2 pt-3">
				<TextField
					label="Name of the calendar"
					value={said.name}
					wrong={act.refusal?.of("name")}
					onChange={(e) => setSaid({ ...said, name: e.target.value })}
				/>
				<div className="min-w-64 flex-1">
					<TextField
						label="Address"
						placeholder="https://…/calendar.ics"
						value={said.address}
						wrong={act.refusal?.of("address") ?? act.refusal?.of("content")}
						onChange={(e) => setSaid({ ...said, address: e.target.value })}
					/>
				</div>
				<Button disabled={act.busy || !said.address} onClick={() => add(null)}>
					Subscribe
				</Button>
				<FilePick
					accept=".ics,text/calendar"
					name="Take a calendar file"
					onFiles={async ([file]) => {
						if (file) await add(await file.text());
					}}
				>
					Take a file
				</FilePick>
			</div>
			<Refused of={act.refusal} />
			{session.data?.hasStandIns && <SampleCalendar />}
		</Section>
	);
}

/** The stand-in outside calendar, to try with. */
function SampleCalendar() {
	const act = useAct();
	const [said, setSaid] = useState({ title: "", start: "", minutes: "60" });
	const events = useQuery({
		queryKey: ["outside-calendar"],
		queryFn: () => answer(api.GET("/api/outside-calendar")),
	});
	async function put(event: FormEvent) {
		event.preventDefault();
		const done = await act.run(() =>
			answer(
				api.POST("/api/outside-calendar", {
					body: {
						id: 0,
						title: said.title,
						start: said.start,
						minutes: Number(said.minutes),
					},
				}),
			),
		);
		if (done) setSaid({ ...said, title: "" });
	}
	return (
		<form onSubmit={put} className="mt-4 bg-plaster p-3">
			<p>
				A stand-in for an outside calendar: subscribe to{" "}
				<b className="font-[650]">stand-in:calendar</b>, and write into it here.
			</p>
			<ul>
				{events.data?.map((one) => (
					<li key={one.id}>
						{one.title},{" "}
						<span className="text-soft">
							{one.start.slice(0, 16).replace("T", " ")}, {one.minutes} minutes
						</span>{" "}
						<Button
							kind="word"
							size="small"
							onClick={() =>
								act.run(() =>
									answer(
										api.DELETE("/api/outside-calendar/{id}", {
											params: { path: { id: one.id } },
										}),
									),
								)
							}
						>
							take out
						</Button>
					</li>
				))}
			</ul>
			<div className="flex flex-wrap items-end gap-2 pt-2">
				<TextField
					label="What"
					value={said.title}
					wrong={act.refusal?.of("title")}
					onChange={(e) => setSaid({ ...said, title: e.target.value })}
				/>
				<MomentField
					label="When"
					value={said.start}
					wrong={act.refusal?.of("start")}
					onChange={(at) => setSaid({ ...said, start: at })}
				/>
				<CountField
					label="Minutes"
					value={said.minutes}
					wrong={act.refusal?.of("minutes")}
					onChange={(count) =>
						setSaid({ ...said, minutes: String(count ?? "") })
					}
				/>
				<Button type="submit" disabled={act.busy || !said.start || !said.title}>
					Write it in
				</Button>
			</div>
			<Refused of={act.refusal} />
		</form>
	);
}
