import type { FormField } from "../../api/schema";
import { Select } from "../../ui/Select";
import { Tick } from "../../ui/Tick";

/** Shown only while a choice above is one of these. */
export function Condition({
	field,
	above,
	wrong,
	onChange,
}: {
	field: FormField;
	above: readonly FormField[];
	wrong?: string;
	onChange: (part: Partial<FormField>) => void;
}) {
	const choices = above.filter(
		(one) =>
			one.sort === "OneOf" || one.sort === "AnyOf" || one.sort === "Consent",
	);
	if (choices.length === 0 && !field.shownIf) return null;
	const on = choices.find((one) => one.key === field.shownIf?.field);
	const options = on?.sort === "Consent" ? ["yes"] : (on?.options ?? []);
	return (
		<div>
			<Select
				label="Shown"
				value={field.shownIf?.field ?? ""}
				wrong={wrong}
				onChange={(e) =>
					onChange({
						shownIf: e.target.value ? { field: e.target.value, is: [] } : null,
					})
				}
			>
				<option value="">always</option>
				{choices.map((one) => (
					<option key={one.key} value={one.key}>
						if “{one.label}” is
					</option>
				))}
			</Select>
			{options.map((option) => (
				<Tick
					key={option}
					label={option}
					className="pt-1"
					checked={field.shownIf?.is.includes(option) ?? false}
					onChange={(checked) =>
						onChange({
							shownIf: {
								field: on?.key ?? "",
								is: options.filter((one) =>
									one === option ? checked : field.shownIf?.is.includes(one),
								),
							},
						})
					}
				/>
			))}
		</div>
	);
}
