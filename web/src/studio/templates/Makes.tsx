import type { FormField } from "../../api/schema";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";

/** The task that one answer of a checklist makes. */
export function Makes({
	field,
	wrong,
	onChange,
}: {
	field: FormField;
	wrong?: string;
	onChange: (part: Partial<FormField>) => void;
}) {
	const { makes } = field;
	return (
		<div className="grid gap-3 md:col-span-2 md:grid-cols-[200px_1fr]">
			<Select
				label="A task is made by"
				value={makes?.answer ?? ""}
				wrong={wrong}
				onChange={(e) =>
					onChange({
						makes: e.target.value
							? { title: makes?.title ?? "", answer: e.target.value }
							: null,
					})
				}
			>
				<option value="">no answer</option>
				{(field.options ?? []).map((option) => (
					<option key={option} value={option}>
						“{option}”
					</option>
				))}
			</Select>
			{makes && (
				<TextField
					label="The task"
					value={makes.title}
					onChange={(e) =>
						onChange({ makes: { ...makes, title: e.target.value } })
					}
				/>
			)}
		</div>
	);
}
