import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import type { IsoDayOfWeek, OpenSpan, StudioDto } from "../../api/schema";
import { Alert, Select, TextArea, TextField } from "../../ui/Fields";
import { get, post, put, remove, upload } from "../../ui/http";
import { Shown } from "../../ui/Shown";
import { Section } from "../templates/Section";
import { useAct } from "../useAct";
import { Calendars } from "./Calendars";
import { ApiKeys, Hooks } from "./Hooks";
import { Mail } from "./Mail";
import { MeetingKinds } from "./MeetingKinds";
import { SignedIn } from "./SignedIn";

const days: IsoDayOfWeek[] = [
	"Monday",
	"Tuesday",
	"Wednesday",
	"Thursday",
	"Friday",
	"Saturday",
	"Sunday",
];

/** The studio's own details, its hours, and how meetings are offered. */
export default function StudioPage() {
	const studio = useQuery({
		queryKey: ["studio"],
		queryFn: () => get<StudioDto>("/api/studio"),
	});
	useEffect(() => {
		document.title = "The studio, Gesamt";
	}, []);
	return (
		<main className="max-w-5xl px-5 pb-8">
			<h1 className="pt-4 pb-3">The studio</h1>
			<Shown query={studio}>
				{(data) => <Page key={data.edition} studio={data} />}
			</Shown>
		</main>
	);
}

type Text = "name" | "owner" | "mail" | "taxNumber" | "iban" | "zone";

const texts: { key: Text; label: string }[] = [
	{ key: "name", label: "Name of the studio" },
	{ key: "owner", label: "Your name, under letters" },
	{ key: "mail", label: "Mail address" },
	{ key: "taxNumber", label: "Tax number" },
	{ key: "iban", label: "IBAN" },
	{ key: "zone", label: "Time zone" },
];

function Page({ studio }: { studio: StudioDto }) {
	const [said, setSaid] = useState(studio);
	const act = useAct();
	const files = useAct();
	const set = (part: Partial<StudioDto>) => setSaid({ ...said, ...part });
	const wrong = (field: string) => act.refusal?.of(field);
	const keep = (
		<div className="pt-3">
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
			<button
				type="button"
				className="btn btn-go mt-2"
				disabled={act.busy || said === studio}
				onClick={() => act.run(() => put("/api/studio", said))}
			>
				Keep the studio
			</button>
		</div>
	);
	return (
		<div className="grid gap-4">
			<Section title="Details" under="on letters, papers and pages" open>
				<div className="grid gap-3 md:grid-cols-2">
					{texts.map(({ key, label }) => (
						<TextField
							key={key}
							label={label}
							value={said[key]}
							wrong={wrong(key)}
							onChange={(e) => set({ [key]: e.target.value })}
						/>
					))}
					<TextArea
						label="Postal address"
						rows={2}
						value={said.address}
						wrong={wrong("address")}
						onChange={(e) => set({ address: e.target.value })}
					/>
					<TextArea
						label="Signature"
						rows={2}
						value={said.signature}
						wrong={wrong("signature")}
						onChange={(e) => set({ signature: e.target.value })}
					/>
				</div>
				<div className="flex flex-wrap items-end gap-3 pt-3">
					<div className="w-40">
						<TextField
							label="Brand colour"
							hint="dark enough for white words"
							value={said.brand}
							wrong={wrong("brand")}
							onChange={(e) => set({ brand: e.target.value })}
						/>
					</div>
					<span
						aria-hidden="true"
						className="mb-6 size-8 border border-hair"
						style={{ background: said.brand }}
					/>
					{studio.hasLogo && (
						<img src="/logo" alt="The logo" className="mb-5 max-h-11" />
					)}
					<label className="btn mb-5">
						{studio.hasLogo ? "Another logo" : "A logo"}
						<input
							type="file"
							accept="image/*"
							aria-label="A logo"
							className="sr-only"
							onChange={(e) => {
								const file = e.target.files?.[0];
								if (file)
									files.run(() =>
										upload(
											`/api/studio/logo?name=${encodeURIComponent(file.name)}`,
											file,
										),
									);
							}}
						/>
					</label>
					{studio.hasLogo && (
						<button
							type="button"
							className="btn mb-5"
							onClick={() => files.run(() => remove("/api/studio/logo"))}
						>
							Take the logo away
						</button>
					)}
				</div>
				{files.refusal && <Alert>{files.refusal.message}</Alert>}
				{keep}
			</Section>
			<Section
				title="Hours"
				under="when meetings can be, and when letters leave"
			>
				<Hours
					hours={said.openHours}
					wrong={(i) => wrong(`openHours[${i}]`)}
					onChange={(openHours) => set({ openHours })}
				/>
				<div className="grid gap-3 pt-4 md:grid-cols-3">
					<TextField
						label="Letters of routines leave from"
						type="time"
						value={said.sendFrom.slice(0, 5)}
						onChange={(e) => set({ sendFrom: `${e.target.value}:00` })}
					/>
					<TextField
						label="until"
						type="time"
						value={said.sendUntil.slice(0, 5)}
						wrong={wrong("sendUntil")}
						onChange={(e) => set({ sendUntil: `${e.target.value}:00` })}
					/>
					<TextArea
						label="Days off, one a line"
						hint="2027-12-24; Saturdays and Sundays are off anyway for letters"
						rows={3}
						value={said.daysOff.join("\n")}
						onChange={(e) =>
							set({
								daysOff: e.target.value.split("\n"),
							})
						}
						wrong={wrong("daysOff")}
					/>
				</div>
				{keep}
			</Section>
			<MeetingKinds />
			<Calendars />
			<Mail />
			<SignedIn />
			<Hooks />
			<ApiKeys />
			<Section title="Your own calendar" under="meetings and dated tasks">
				<p>
					Subscribe to this address in your calendar program. Whoever knows it
					reads your meetings: keep it to yourself.
				</p>
				{studio.feed ? (
					<p className="py-2 font-[650] break-all">{studio.feed}</p>
				) : (
					<p className="py-2 text-soft">There is no address yet.</p>
				)}
				<button
					type="button"
					className="btn"
					onClick={() => files.run(() => post("/api/studio/feed"))}
				>
					{studio.feed ? "Make a new address" : "Make the address"}
				</button>
			</Section>
		</div>
	);
}

function Hours({
	hours,
	wrong,
	onChange,
}: {
	hours: readonly OpenSpan[];
	wrong: (at: number) => string | undefined;
	onChange: (hours: OpenSpan[]) => void;
}) {
	const set = (at: number, part: Partial<OpenSpan>) =>
		onChange(hours.map((one, i) => (i === at ? { ...one, ...part } : one)));
	return (
		<ul className="grid gap-2">
			{hours.map((span, i) => (
				<li key={i} className="flex flex-wrap items-end gap-2">
					<Select
						label="Day"
						hidden={i > 0}
						value={span.day}
						onChange={(e) => set(i, { day: e.target.value as IsoDayOfWeek })}
					>
						{days.map((day) => (
							<option key={day}>{day}</option>
						))}
					</Select>
					<TextField
						label="From"
						hidden={i > 0}
						type="time"
						value={span.from.slice(0, 5)}
						onChange={(e) => set(i, { from: `${e.target.value}:00` })}
					/>
					<TextField
						label="Until"
						hidden={i > 0}
						type="time"
						value={span.until.slice(0, 5)}
						wrong={wrong(i)}
						onChange={(e) => set(i, { until: `${e.target.value}:00` })}
					/>
					<button
						type="button"
						className="link pb-2 text-small"
						onClick={() => onChange(hours.filter((_, at) => at !== i))}
					>
						take out
					</button>
				</li>
			))}
			<li>
				<button
					type="button"
					className="btn"
					onClick={() =>
						onChange([
							...hours,
							{ day: "Monday", from: "10:00:00", until: "12:00:00" },
						])
					}
				>
					Add hours
				</button>
			</li>
		</ul>
	);
}
