import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { answer, api, upload } from "../../api/client";
import type { StudioDto } from "../../api/schema";
import { Alert } from "../../ui/Alert";
import { Button } from "../../ui/Button";
import { FilePick } from "../../ui/FilePick";
import { Shown } from "../../ui/Shown";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { TimeField } from "../../ui/TimeField";
import { Section } from "../templates/Section";
import { useAct } from "../useAct";
import { ApiKeys } from "./ApiKeys";
import { Calendars } from "./Calendars";
import { Hooks } from "./Hooks";
import { Hours } from "./Hours";
import { Mail } from "./Mail";
import { MeetingKinds } from "./MeetingKinds";
import { SignedIn } from "./SignedIn";

/** The studio's own details, its hours, and how meetings are offered. */
export default function StudioPage() {
	const studio = useQuery({
		queryKey: ["studio"],
		queryFn: () => answer(api.GET("/api/studio")),
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
			<Button
				kind="go"
				className="mt-2"
				disabled={act.busy || said === studio}
				onClick={() =>
					act.run(() => answer(api.PUT("/api/studio", { body: said })))
				}
			>
				Keep the studio
			</Button>
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
					<FilePick
						className="mb-5"
						accept="image/*"
						name="A logo"
						onFiles={([file]) => {
							if (file)
								files.run(() =>
									upload(
										`/api/studio/logo?name=${encodeURIComponent(file.name)}`,
										file,
									),
								);
						}}
					>
						{studio.hasLogo ? "Another logo" : "A logo"}
					</FilePick>
					{studio.hasLogo && (
						<Button
							className="mb-5"
							onClick={() =>
								files.run(() => answer(api.DELETE("/api/studio/logo")))
							}
						>
							Take the logo away
						</Button>
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
					<TimeField
						label="Letters of routines leave from"
						value={said.sendFrom}
						onChange={(time) => set({ sendFrom: time })}
					/>
					<TimeField
						label="until"
						value={said.sendUntil}
						wrong={wrong("sendUntil")}
						onChange={(time) => set({ sendUntil: time })}
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
				<Button
					onClick={() => files.run(() => answer(api.POST("/api/studio/feed")))}
				>
					{studio.feed ? "Make a new address" : "Make the address"}
				</Button>
			</Section>
		</div>
	);
}
