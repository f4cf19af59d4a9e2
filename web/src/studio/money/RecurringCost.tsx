import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { Every, RecurringCostDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { DateField } from "../../ui/DateField";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { useUndo } from "../../ui/Undo";
import { Window } from "../../ui/Window";
import { everyWords } from "../everyWords";
import { useAct } from "../useAct";
import { CostFields, type Said } from "./CostFields";
import { useUsual } from "./useUsual";

/** A cost that books itself: begun, changed for what lies ahead, stopped. */
export function RecurringCost({
	cost,
	onClose,
}: {
	/** The one that is opened; none for a new one. */
	cost?: RecurringCostDto;
	onClose: () => void;
}) {
	const usual = useUsual();
	const was = cost?.said;
	const [said, setSaid] = useState<Said>({
		what: was?.what ?? "",
		who: was?.payee ?? "",
		category: was?.category ?? "",
		amount: was?.amount ?? "",
		tax: was?.tax ?? usual?.tax ?? "0",
		account: was?.account ?? null,
	});
	const [every, setEvery] = useState<Every>(was?.when?.every ?? "Month");
	const [first, setFirst] = useState(was?.when?.first ?? "");
	const [until, setUntil] = useState(was?.when?.until ?? "");
	const act = useAct();
	const offer = useUndo();
	async function keep(event: FormEvent) {
		event.preventDefault();
		const { who, ...rest } = said;
		const body = {
			...rest,
			payee: who,
			project: was?.project ?? null,
			when: { every, first: first || null, until: until || null },
		};
		const done = await act.run(() =>
			cost
				? answer(
						api.PUT("/api/recurring-costs/{id}", {
							params: { path: { id: cost.id } },
							body,
						}),
					)
				: answer(api.POST("/api/recurring-costs", { body })),
		);
		if (done) onClose();
	}
	async function stop(stopped: boolean) {
		const set = (now: boolean) =>
			act.run(() =>
				answer(
					api.POST("/api/recurring-costs/{id}/stopped", {
						params: { path: { id: cost?.id ?? 0 } },
						body: { stopped: now },
					}),
				),
			);
		if (!(await set(stopped))) return;
		offer({
			words: stopped ? `Stopped: ${said.what}` : `It goes on: ${said.what}`,
			undo: () => set(!stopped),
		});
		onClose();
	}
	return (
		<Window title="A cost that comes again" open onClose={onClose}>
			<form onSubmit={keep} className="grid gap-3">
				<p className="text-soft">
					{cost
						? `${cost.amount}: ${cost.monthly} a month, ${cost.yearly} a year. What is changed reaches only what lies ahead.`
						: "It books itself on its days. A first day that is over books what was since."}
				</p>
				<CostFields
					said={said}
					who={{ label: "Paid to", field: "payee" }}
					usual={usual}
					refusal={act.refusal}
					onChange={setSaid}
				/>
				<div className="grid gap-3 sm:grid-cols-2">
					<Select
						label="How often"
						disabled={cost !== undefined}
						value={every}
						onChange={(e) => setEvery(e.target.value as Every)}
					>
						{Object.entries(everyWords).map(([one, words]) => (
							<option key={one} value={one}>
								{words}
							</option>
						))}
					</Select>
					<DateField
						label="First day"
						hint="left empty, today"
						value={first}
						disabled={cost !== undefined}
						wrong={act.refusal?.of("when.first")}
						onChange={setFirst}
					/>
				</div>
				<DateField
					label="Last day"
					hint="left empty, until it is stopped"
					value={until}
					wrong={act.refusal?.of("when.until")}
					onChange={setUntil}
				/>
				<Refused of={act.refusal} />
				<div className="flex gap-2">
					<Button kind="go" type="submit" disabled={act.busy}>
						{cost ? "Keep the change" : "Let it book itself"}
					</Button>
					{cost && (
						<Button
							className="ml-auto"
							disabled={act.busy || (cost.stopped && cost.next === "over")}
							onClick={() => stop(!cost.stopped)}
						>
							{cost.stopped ? "Let it go on" : "Stop it"}
						</Button>
					)}
				</div>
			</form>
		</Window>
	);
}
