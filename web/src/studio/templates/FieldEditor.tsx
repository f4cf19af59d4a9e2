import type { FieldSort, FormField } from "../../api/schema";
import { Select, TextArea, TextField } from "../../ui/Fields";

export const sortWords: Record<FieldSort, string> = {
	ShortText: "short text",
	LongText: "long text",
	OneOf: "one of",
	AnyOf: "any of",
	Number: "number",
	Date: "date",
	Mail: "mail address",
	Phone: "phone",
	Address: "postal address",
	Amount: "amount or range",
	File: "files",
	Consent: "consent",
	Heading: "heading",
};

/** What can be said of one question. */
export function FieldEditor({
	field,
	above,
	fills,
	wrong,
	onChange,
	onTakeOut,
}: {
	field: FormField;
	above: readonly FormField[];
	fills: readonly string[];
	wrong: (name: string) => string | undefined;
	onChange: (part: Partial<FormField>) => void;
	onTakeOut: () => void;
}) {
	const hasOptions = field.sort === "OneOf" || field.sort === "AnyOf";
	return (
		<div className="grid gap-3 py-2 pl-4 md:grid-cols-2">
			<TextField
				label="Question"
				value={field.label}
				wrong={wrong("label") ?? wrong("key")}
				onChange={(e) => onChange({ label: e.target.value })}
			/>
			<Select
				label="Asks for"
				value={field.sort}
				onChange={(e) => {
					const sort = e.target.value as FieldSort;
					onChange({
						sort,
						options:
							sort === "OneOf" || sort === "AnyOf"
								? (field.options ?? [])
								: null,
					});
				}}
			>
				{Object.entries(sortWords).map(([sort, words]) => (
					<option key={sort} value={sort}>
						{words}
					</option>
				))}
			</Select>
			{field.sort !== "Heading" && (
				<>
					<TextField
						label="Hint"
						value={field.hint ?? ""}
						onChange={(e) => onChange({ hint: e.target.value || null })}
					/>
					<Select
						label="Its answer fills"
						value={field.fills ?? ""}
						onChange={(e) => onChange({ fills: e.target.value || null })}
					>
						<option value="">nothing, it is only kept</option>
						{fills.map((one) => (
							<option key={one}>{one}</option>
						))}
					</Select>
				</>
			)}
			{field.sort === "Number" && (
				<TextField
					label="Unit"
					value={field.unit ?? ""}
					onChange={(e) => onChange({ unit: e.target.value || null })}
				/>
			)}
			{hasOptions && (
				<TextArea
					label="Choices, one a line"
					rows={4}
					value={(field.options ?? []).join("\n")}
					wrong={wrong("options")}
					onChange={(e) => onChange({ options: e.target.value.split("\n") })}
					onBlur={() =>
						onChange({
							options: (field.options ?? [])
								.map((one) => one.trim())
								.filter(Boolean),
						})
					}
				/>
			)}
			<Condition
				field={field}
				above={above}
				wrong={wrong("shownIf")}
				onChange={onChange}
			/>
			<div className="flex items-center gap-5 md:col-span-2">
				{field.sort !== "Heading" && (
					<label className="flex gap-2">
						<input
							type="checkbox"
							className="mt-1 size-4 accent-(--ink)"
							checked={field.required}
							onChange={(e) => onChange({ required: e.target.checked })}
						/>
						required
					</label>
				)}
				<button type="button" className="link text-small" onClick={onTakeOut}>
					Take this question out
				</button>
			</div>
		</div>
	);
}

/** Shown only while a choice above is one of these. */
function Condition({
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
				<label key={option} className="flex gap-2 pt-1">
					<input
						type="checkbox"
						className="mt-1 size-4 accent-(--ink)"
						checked={field.shownIf?.is.includes(option) ?? false}
						onChange={(e) =>
							onChange({
								shownIf: {
									field: on?.key ?? "",
									is: options.filter((one) =>
										one === option
											? e.target.checked
											: field.shownIf?.is.includes(one),
									),
								},
							})
						}
					/>
					{option}
				</label>
			))}
		</div>
	);
}
