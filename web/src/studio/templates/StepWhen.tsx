import type { Cause, SpanUnit } from "../../api/schema";
import { CountField } from "../../ui/CountField";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";
import { TimeField } from "../../ui/TimeField";
import { Options, type Props } from "./stepParts";
import { causes, units } from "./stepWords";

export function When({ step, choices, wrong, onChange }: Props) {
	const before = step.count < 0;
	const size = Math.abs(step.count);
	return (
		<div className="grid gap-3 md:grid-cols-5">
			<CountField
				label="How long"
				min={0}
				value={size}
				wrong={wrong("count")}
				onChange={(count) =>
					onChange({ count: (before ? -1 : 1) * (count ?? 0) })
				}
			/>
			<Select
				label="Counted in"
				value={step.unit}
				onChange={(e) => onChange({ unit: e.target.value as SpanUnit })}
			>
				<Options of={units} />
			</Select>
			<Select
				label="Before or after"
				value={before ? "before" : "after"}
				onChange={(e) =>
					onChange({ count: (e.target.value === "before" ? -1 : 1) * size })
				}
			>
				<option value="after">after</option>
				<option value="before">before</option>
			</Select>
			<Select
				label="Of what"
				value={step.cause}
				wrong={wrong("cause")}
				onChange={(e) => onChange({ cause: e.target.value as Cause })}
			>
				<Options of={causes} />
			</Select>
			<TimeField
				label="At"
				hint="empty: the time of day of its cause"
				value={step.at ?? ""}
				onChange={(time) => onChange({ at: time || null })}
			/>
			{step.cause === "NamedDate" && (
				<div className="md:col-span-2">
					<TextField
						label="Which date"
						hint={`empty: the ${choices.dateName}`}
						value={step.dateName ?? ""}
						onChange={(e) => onChange({ dateName: e.target.value || null })}
					/>
				</div>
			)}
		</div>
	);
}
