import type { LateStart, StepDoes, StepMode } from "../../api/schema";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";
import { actOf, listOf, Options, type Props } from "./stepParts";
import { acts, late } from "./stepWords";

export function What({ step, choices, wrong, onChange }: Props) {
	const list = listOf(step.does, choices);
	const act = actOf(step.does, choices);
	return (
		<div className="grid gap-3 md:grid-cols-3">
			<Select
				label="What it does"
				value={step.does}
				onChange={(e) => {
					const does = e.target.value as StepDoes;
					onChange({
						does,
						what: listOf(does, choices)?.[0]?.key ?? null,
						letter: actOf(does, choices)?.withLetter
							? (step.letter ?? choices.lists.letters[0]?.key ?? null)
							: null,
						...(actOf(does, choices)?.alwaysAsks
							? { mode: "AsksFirst" as const }
							: {}),
					});
				}}
			>
				<Options of={acts} />
			</Select>
			{list && (
				<Select
					label="Which"
					value={step.what ?? ""}
					wrong={wrong("action")}
					onChange={(e) => onChange({ what: e.target.value })}
				>
					{!list.some((one) => one.key === step.what) && (
						<option value={step.what ?? ""}>{step.what ?? "choose"}</option>
					)}
					{list.map((one) => (
						<option key={one.key} value={one.key}>
							{one.name}
						</option>
					))}
				</Select>
			)}
			{["LabelOn", "LabelOff", "TellMe"].includes(step.does) && (
				<TextField
					label={step.does === "TellMe" ? "Words" : "Label"}
					value={step.what ?? ""}
					wrong={wrong("action")}
					onChange={(e) => onChange({ what: e.target.value })}
				/>
			)}
			{act?.withLetter && (
				<Select
					label="Letter"
					value={step.letter ?? ""}
					wrong={wrong("letter")}
					onChange={(e) => onChange({ letter: e.target.value })}
				>
					{!choices.lists.letters.some((one) => one.key === step.letter) && (
						<option value={step.letter ?? ""}>{step.letter ?? "choose"}</option>
					)}
					{choices.lists.letters.map((one) => (
						<option key={one.key} value={one.key}>
							{one.name}
						</option>
					))}
				</Select>
			)}
			{!act?.alwaysAsks && (
				<Select
					label="How it acts"
					value={step.mode}
					onChange={(e) => onChange({ mode: e.target.value as StepMode })}
				>
					<option value="AsksFirst">asks first</option>
					<option value="ByItself">by itself</option>
				</Select>
			)}
			<Select
				label="If its time is past when it begins, it"
				value={step.lateStart}
				onChange={(e) => onChange({ lateStart: e.target.value as LateStart })}
			>
				<Options of={late} />
			</Select>
		</div>
	);
}
