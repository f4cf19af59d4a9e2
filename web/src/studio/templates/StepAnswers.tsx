import type { StepDto } from "../../api/schema";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";
import { type Props, parts } from "./stepParts";

export function Answers({
	step,
	details,
	onChange,
}: {
	step: StepDto;
	details: readonly string[];
	onChange: Props["onChange"];
}) {
	if (details.length === 0) return null;
	const answer = step.answers[0];
	const set = (detail: string, is: string[]) =>
		onChange({
			answers: detail
				? [{ detail, is }, ...step.answers.slice(1)]
				: step.answers.slice(1),
		});
	return (
		<div className="grid grid-cols-2 gap-2">
			<Select
				label="Only if"
				value={answer?.detail ?? ""}
				onChange={(e) => set(e.target.value, answer?.is ?? [])}
			>
				<option value="">whatever was answered</option>
				{details.map((detail) => (
					<option key={detail}>{detail}</option>
				))}
			</Select>
			{answer && (
				<TextField
					label="is"
					hint="one of, apart by commas"
					value={answer.is.join(", ")}
					onChange={(e) => set(answer.detail, parts(e.target.value))}
				/>
			)}
		</div>
	);
}
