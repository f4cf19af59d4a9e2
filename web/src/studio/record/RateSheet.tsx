import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../../api/client";
import type { RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Tick } from "../../ui/Tick";
import { useAct } from "../useAct";
import { Block } from "./Block";
import { Carried } from "./Carried";

const useRates = (project: number) =>
	useQuery({
		queryKey: ["project", project, "rates"],
		queryFn: () =>
			answer(
				api.GET("/api/projects/{id}/rate-sheet", {
					params: { path: { id: project } },
				}),
			),
	});

/** The rate sheet: whether one is with the client, and what they ticked. */
export function RateSheet({
	record,
	onSend,
}: {
	record: RecordDto;
	onSend: () => void;
}) {
	const rates = useRates(record.id);
	const act = useAct();
	if (!rates.data) return null;
	const { since, ticked, canSend, services } = rates.data;
	if (!since && !ticked && (!canSend || services.length === 0)) return null;
	return (
		<Block
			title="Rate sheet"
			aside={
				canSend && (
					<Button kind="word" onClick={onSend}>
						put one to the client
					</Button>
				)
			}
		>
			{since && (
				<p className="flex gap-3 py-0.5 text-[14.3px]">
					With the client since {since}
					<Button
						kind="word"
						size="small"
						className="ml-auto"
						disabled={act.busy}
						onClick={() =>
							act.run(() =>
								answer(
									api.POST("/api/projects/{id}/rate-sheet/back", {
										params: { path: { id: record.id } },
									}),
								),
							)
						}
					>
						take back<span className="sr-only">: the rate sheet</span>
					</Button>
				</p>
			)}
			{ticked && (
				<p className="py-0.5 text-[14.3px]">Ticked: {ticked.join(", ")}</p>
			)}
			<Refused of={act.refusal} />
		</Block>
	);
}

/** Puts services with their prices to the client, who ticks what interests them. */
export function SendRateSheet({
	record,
	onClose,
}: {
	record: RecordDto;
	onClose: () => void;
}) {
	const rates = useRates(record.id);
	const [mine, setMine] = useState<number[]>();
	const marked = rates.data?.services
		.filter((one) => one.chosen)
		.map((one) => one.service);
	const chosen = mine ?? marked ?? [];
	return (
		<Carried
			project={record.id}
			title="Put a rate sheet to the client"
			template="rate-sheet"
			button="Put it to the client"
			disabled={chosen.length === 0}
			onClose={onClose}
			send={(letter) =>
				answer(
					api.POST("/api/projects/{id}/rate-sheet", {
						params: { path: { id: record.id } },
						body: {
							services: (rates.data?.services ?? [])
								.map((one) => one.service)
								.filter((one) => chosen.includes(one)),
							...letter,
						},
					}),
				)
			}
		>
			{(refusal) => (
				<fieldset className="grid gap-1.5">
					<legend className="label">What stands on it</legend>
					{rates.data?.services.map((one) => (
						<Tick
							key={one.service}
							label={one.title}
							under={one.price}
							checked={chosen.includes(one.service)}
							onChange={(on) =>
								setMine(
									on
										? [...chosen, one.service]
										: chosen.filter((other) => other !== one.service),
								)
							}
						/>
					))}
					{refusal?.of("services") && (
						<p className="wrong">{refusal.of("services")}</p>
					)}
				</fieldset>
			)}
		</Carried>
	);
}
