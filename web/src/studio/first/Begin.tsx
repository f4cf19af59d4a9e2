import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useNavigate } from "react-router";
import { answer, api } from "../../api/client";
import type { BeginDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Choice, Choices } from "../../ui/Choice";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { Shown } from "../../ui/Shown";
import { TextField } from "../../ui/TextField";
import { useAct } from "../useAct";

/** What a new studio begins with. */
export default function Begin() {
	const sets = useQuery({
		queryKey: ["starting-sets"],
		queryFn: () => answer(api.GET("/api/starting-sets")),
	});
	useEffect(() => {
		document.title = "What you begin with, Gesamt";
	}, []);
	return (
		<main className="mx-auto max-w-[820px] px-5 pb-8">
			<div className="pt-6 pb-4">
				<h1>What kind of work do you do?</h1>
				<p className="pt-1 text-soft">
					A starting set brings forms, services, letters, a contract, phases and
					follow-ups in the words of a trade. All of it can be changed, and
					further kinds of work added, at any time.
				</p>
			</div>
			<Shown query={sets}>{(data) => <Choosing begin={data} />}</Shown>
		</main>
	);
}

function Choosing({ begin }: { begin: BeginDto }) {
	const [said, setSaid] = useState({
		set: "",
		currency: begin.currency,
		zone: begin.zone,
		tax: "",
	});
	const act = useAct();
	const navigate = useNavigate();
	const wrong = (field: string) => act.refusal?.of(field);
	async function go() {
		const done = await act.run(() =>
			answer(
				api.POST("/api/starting-sets/begin", {
					body: { ...said, set: said.set === "nothing" ? null : said.set },
				}),
			),
		);
		if (done) navigate("/today");
	}
	return (
		<div className="grid gap-5">
			<Choices
				label="What to begin with"
				hidden
				wrong={wrong("set")}
				value={said.set}
				className="panel grid px-4 md:grid-cols-2 md:gap-x-8"
				onChange={(set) => setSaid({ ...said, set })}
			>
				{begin.sets.map((set) => (
					<Choice
						key={set.key}
						value={set.key}
						className="border-b border-hair py-3"
						under={`${set.words} Brings ${set.kinds.join(" and ")}.`}
					>
						<b>{set.name}</b>
					</Choice>
				))}
				<Choice
					value="nothing"
					className="py-3"
					under="Kinds of work are added one by one, under Templates."
				>
					<b>Begin with nothing</b>
				</Choice>
			</Choices>
			<div className="grid gap-3 md:grid-cols-3">
				<Select
					label="You are paid in"
					value={said.currency}
					wrong={wrong("currency")}
					onChange={(e) => setSaid({ ...said, currency: e.target.value })}
				>
					{begin.currencies.map((one) => (
						<option key={one}>{one}</option>
					))}
				</Select>
				<TextField
					label="Tax on what you sell, %"
					hint="nothing if you charge none"
					inputMode="decimal"
					value={said.tax}
					wrong={wrong("tax")}
					onChange={(e) => setSaid({ ...said, tax: e.target.value })}
				/>
				<Select
					label="Your time zone"
					value={said.zone}
					wrong={wrong("zone")}
					onChange={(e) => setSaid({ ...said, zone: e.target.value })}
				>
					{!begin.zones.includes(said.zone) && <option>{said.zone}</option>}
					{begin.zones.map((one) => (
						<option key={one}>{one}</option>
					))}
				</Select>
			</div>
			<Refused of={act.refusal} />
			<div className="flex gap-3">
				<Button kind="go" disabled={act.busy || !said.set} onClick={go}>
					Begin
				</Button>
				<Button onClick={() => navigate("/today")}>Later</Button>
			</div>
		</div>
	);
}
