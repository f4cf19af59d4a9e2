import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { BillDto, SpentDto, SpentLinesDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Choice, Choices } from "../../ui/Choice";
import { Refused } from "../../ui/Refused";
import { Shown } from "../../ui/Shown";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";

type Props = {
	project: number;
	bill: BillDto;
	onPut: (lines: SpentLinesDto) => void;
	onClose: () => void;
};

/** Puts kept hours and costs on an invoice. */
export function ChargeKept(props: Props) {
	const spent = useQuery({
		queryKey: ["project", props.project, "spent"],
		queryFn: () =>
			answer(
				api.GET("/api/projects/{id}/spent", {
					params: { path: { id: props.project } },
				}),
			),
	});
	return (
		<Window title="Hours and costs" open wide onClose={props.onClose}>
			<Shown query={spent}>{(data) => <Free {...props} spent={data} />}</Shown>
		</Window>
	);
}

function Free({
	project,
	bill,
	spent,
	onPut,
	onClose,
}: Props & { spent: SpentDto }) {
	const onIt = (sort: "hours" | "costs") =>
		bill.lines.flatMap((line) => line[sort] ?? []);
	const hours = spent.hours.filter(
		(one) => !one.charged && !onIt("hours").includes(one.id),
	);
	const costs = spent.costs.filter(
		(one) => !one.charged && !onIt("costs").includes(one.id),
	);
	const [wanted, setWanted] = useState({
		hours: hours.map((one) => one.id),
		costs: costs.filter((one) => one.chargeOn).map((one) => one.id),
	});
	const [rate, setRate] = useState(bill.gross ? "" : spent.usual.rate);
	const [each, setEach] = useState("all");
	const act = useAct();
	if (hours.length + costs.length === 0)
		return (
			<p>
				Nothing is left to charge. Hours and costs are kept on the project’s
				record.
			</p>
		);
	async function put(event: FormEvent) {
		event.preventDefault();
		await act.run(async () => {
			onPut(
				await answer(
					api.GET("/api/projects/{id}/spent/lines", {
						params: {
							path: { id: project },
							query: {
								...wanted,
								rate,
								each: each === "each",
								currency: bill.currency,
								gross: bill.gross,
							},
						},
					}),
				),
			);
			onClose();
		});
	}
	const tick = (sort: "hours" | "costs", id: number) => ({
		checked: wanted[sort].includes(id),
		onChange: (on: boolean) =>
			setWanted({
				...wanted,
				[sort]: on
					? [...wanted[sort], id]
					: wanted[sort].filter((one) => one !== id),
			}),
	});
	return (
		<form onSubmit={put} className="grid gap-4">
			{hours.length > 0 && (
				<fieldset className="grid min-w-0 gap-1">
					<legend className="label">Hours</legend>
					{hours.map((one) => (
						<Tick
							key={one.id}
							label={`${one.day}, ${one.time}${one.words ? `: ${one.words}` : ""}`}
							{...tick("hours", one.id)}
						/>
					))}
				</fieldset>
			)}
			{wanted.hours.length > 0 && (
				<div className="grid gap-4 sm:grid-cols-[150px_1fr]">
					<TextField
						label="Price of an hour"
						inputMode="decimal"
						hint={
							bill.gross && spent.usual.rate
								? "left empty, as listed"
								: undefined
						}
						value={rate}
						wrong={act.refusal?.of("rate")}
						onChange={(e) => setRate(e.target.value)}
					/>
					<Choices label="On the invoice" value={each} onChange={setEach}>
						<Choice value="all">one line for all of them</Choice>
						<Choice value="each" under="with the words that were kept">
							a line for each
						</Choice>
					</Choices>
				</div>
			)}
			{costs.length > 0 && (
				<fieldset className="grid min-w-0 gap-1">
					<legend className="label">Costs</legend>
					{costs.map((one) => (
						<Tick
							key={one.id}
							label={`${one.day}, ${one.what}, ${one.said}`}
							under={one.chargeOn ? undefined : "not marked to be charged on"}
							{...tick("costs", one.id)}
						/>
					))}
				</fieldset>
			)}
			<Refused of={act.refusal} />
			<Button
				kind="go"
				type="submit"
				className="justify-self-start"
				disabled={act.busy || wanted.hours.length + wanted.costs.length === 0}
			>
				Put them on the invoice
			</Button>
		</form>
	);
}
