import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { GoalDto, GoalsDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { CountField } from "../../ui/CountField";
import { Refused } from "../../ui/Refused";
import { TextField } from "../../ui/TextField";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";
import { useTakeOut } from "../useTakeOut";
import { MeasureFields } from "./MeasureFields";

type Measure = GoalDto["said"]["measures"][number];

const none: Measure = {
	words: "",
	start: "0",
	target: "",
	present: "",
	figure: "Booked",
	kind: null,
	source: null,
	atLeast: null,
};

/** A goal with its measures: what each counts, where it began, where it is to come. */
export function EditGoal({
	goal,
	year,
	figures,
	onClose,
}: {
	/** The one that is changed; none for a new one. */
	goal?: GoalDto;
	year: number;
	/** What a measure can be taken from. */
	figures: GoalsDto["figures"];
	onClose: () => void;
}) {
	const [said, setSaid] = useState(() => {
		const was = goal?.said ?? { year, title: "", measures: [none] };
		// a measure has no name of its own to be known by while it is moved about
		return {
			...was,
			measures: was.measures.map((measure, key) => ({ key, measure })),
		};
	});
	const act = useAct();
	const takeOut = useTakeOut(act, onClose);
	const body = {
		...said,
		measures: said.measures.map(({ measure }) => measure),
	};
	async function keep(event: FormEvent) {
		event.preventDefault();
		const done = await act.run(() =>
			goal
				? answer(
						api.PUT("/api/goals/{id}", {
							params: { path: { id: goal.id } },
							body,
						}),
					)
				: answer(api.POST("/api/goals", { body })),
		);
		if (done) onClose();
	}
	return (
		<Window title="A goal" open wide onClose={onClose}>
			<form onSubmit={keep} className="grid gap-3">
				<div className="grid gap-3 sm:grid-cols-[1fr_110px]">
					<TextField
						label="What you want"
						value={said.title}
						wrong={act.refusal?.of("title")}
						onChange={(e) => setSaid({ ...said, title: e.target.value })}
					/>
					<CountField
						label="Year"
						value={said.year}
						wrong={act.refusal?.of("year")}
						onChange={(to) => setSaid({ ...said, year: to ?? 0 })}
					/>
				</div>
				{said.measures.map(({ key, measure }, at) => (
					<MeasureFields
						key={key}
						measure={measure}
						at={at}
						many={said.measures.length > 1}
						figures={figures}
						wrong={(field) => act.refusal?.of(`measures.${at}.${field}`)}
						onChange={(to) =>
							setSaid({
								...said,
								measures: said.measures.map((one) =>
									one.key === key ? { key, measure: to } : one,
								),
							})
						}
						onRemove={() =>
							setSaid({
								...said,
								measures: said.measures.filter((one) => one.key !== key),
							})
						}
					/>
				))}
				<div>
					<Button
						kind="word"
						onClick={() =>
							setSaid({
								...said,
								measures: [
									...said.measures,
									{
										key:
											Math.max(...said.measures.map((one) => one.key), 0) + 1,
										measure: none,
									},
								],
							})
						}
					>
						another measure
					</Button>
				</div>
				<Refused of={act.refusal} />
				<div className="flex gap-2">
					<Button kind="go" type="submit" disabled={act.busy}>
						{goal ? "Keep the change" : "Set the goal"}
					</Button>
					{goal && (
						<Button
							className="ml-auto"
							disabled={act.busy}
							onClick={() =>
								takeOut(goal.title, (removed) =>
									answer(
										api.POST("/api/goals/{id}/removed", {
											params: { path: { id: goal.id } },
											body: { removed },
										}),
									),
								)
							}
						>
							Take it out
						</Button>
					)}
				</div>
			</form>
		</Window>
	);
}
