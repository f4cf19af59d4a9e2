import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { HookDto, HookEvent, HookTestDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { useAct } from "../useAct";

export const events: Record<HookEvent, string> = {
	InquiryCame: "an inquiry came",
	ProposalSent: "a proposal was sent",
	ProposalAccepted: "a proposal was accepted",
	ContractSigned: "a contract was signed",
	PaymentReceived: "a payment came",
	HandedOver: "it was handed over",
	Approved: "it was approved",
	Ended: "it ended",
	Step: "a routine's step says so",
};

export function Hook({ hook, onDone }: { hook?: HookDto; onDone: () => void }) {
	const [said, setSaid] = useState({
		name: hook?.name ?? "",
		address: hook?.address ?? "",
		events: hook?.events ?? (["InquiryCame"] satisfies HookEvent[]),
		inside: hook?.inside ?? false,
		off: hook?.off ?? false,
		edition: hook?.edition ?? 0,
	});
	const [tested, setTested] = useState<HookTestDto>();
	const act = useAct();
	async function keep(event: FormEvent) {
		event.preventDefault();
		const kept = await act.run(() =>
			hook
				? answer(
						api.PUT("/api/hooks/{id}", {
							params: { path: { id: hook.id } },
							body: said,
						}),
					)
				: answer(api.POST("/api/hooks", { body: said })),
		);
		if (kept) onDone();
	}
	return (
		<form onSubmit={keep} className="grid gap-3 py-3">
			<div className="grid gap-3 md:grid-cols-[200px_1fr]">
				<TextField
					label="Name"
					value={said.name}
					wrong={act.refusal?.of("name")}
					onChange={(e) => setSaid({ ...said, name: e.target.value })}
				/>
				<TextField
					label="Address"
					placeholder="https://"
					value={said.address}
					wrong={act.refusal?.of("address")}
					onChange={(e) => setSaid({ ...said, address: e.target.value })}
				/>
			</div>
			<fieldset className="grid gap-x-4 md:grid-cols-3">
				<legend className="label">It is told when</legend>
				{(Object.keys(events) as HookEvent[])
					.filter((one) => one !== "Step")
					.map((one) => (
						<Tick
							key={one}
							label={events[one]}
							checked={said.events.includes(one)}
							onChange={(on) =>
								setSaid({
									...said,
									events: on
										? [...said.events, one]
										: said.events.filter((other) => other !== one),
								})
							}
						/>
					))}
			</fieldset>
			<Tick
				label="It lies in the studio's own network"
				checked={said.inside}
				onChange={(inside) => setSaid({ ...said, inside })}
			/>
			<Tick
				label="Off"
				checked={said.off}
				onChange={(off) => setSaid({ ...said, off })}
			/>
			{hook && (
				<p className="under break-all">
					Secret, by which it knows the calls are yours:{" "}
					<code>{hook.secret}</code>
				</p>
			)}
			<Refused of={act.refusal} />
			{tested && (
				<p role="status" className={tested.taken ? "" : "font-[650]"}>
					{tested.words}
				</p>
			)}
			<div className="flex gap-2">
				<Button kind="go" type="submit" disabled={act.busy}>
					Keep the web hook
				</Button>
				{hook && (
					<>
						<Button
							disabled={act.busy}
							onClick={() =>
								act.run(async () =>
									setTested(
										await answer(
											api.POST("/api/hooks/{id}/test", {
												params: { path: { id: hook.id } },
											}),
										),
									),
								)
							}
						>
							Try it
						</Button>
						<Button
							disabled={act.busy}
							onClick={() =>
								act.run(() =>
									answer(
										api.DELETE("/api/hooks/{id}", {
											params: { path: { id: hook.id } },
										}),
									),
								)
							}
						>
							Take it away
						</Button>
					</>
				)}
			</div>
		</form>
	);
}
