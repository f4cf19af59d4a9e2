import type { FieldSort, FormField } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Select } from "../../ui/Select";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { Condition } from "./Condition";
import { Makes } from "./Makes";

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
	checklist,
	field,
	above,
	fills,
	wrong,
	onChange,
	onTakeOut,
}: {
	checklist: boolean;
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
					{!checklist && (
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
					)}
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
			{checklist && field.sort === "OneOf" && (
				<Makes field={field} wrong={wrong("makes")} onChange={onChange} />
			)}
			<Condition
				field={field}
				above={above}
				wrong={wrong("shownIf")}
				onChange={onChange}
			/>
			<div className="flex items-center gap-5 md:col-span-2">
				{field.sort !== "Heading" && (
					<Tick
						label="required"
						checked={field.required}
						onChange={(checked) => onChange({ required: checked })}
					/>
				)}
				<Button kind="word" size="small" onClick={onTakeOut}>
					Take this question out
				</Button>
			</div>
		</div>
	);
}
