import type { FormField } from "../api/schema";
import { DateField } from "../ui/DateField";
import { Select } from "../ui/Select";
import { SizeField } from "../ui/SizeField";
import { TextArea } from "../ui/TextArea";
import { TextField } from "../ui/TextField";
import { Tick } from "../ui/Tick";
import { FilesField } from "./FilesField";
import { lines } from "./lines";

const inputTypes: Partial<Record<FormField["sort"], "email" | "tel">> = {
	Mail: "email",
	Phone: "tel",
};

/** One question of a form. */
export function Field({
	field,
	value,
	wrong,
	onChange,
	files,
}: {
	field: FormField;
	value: string;
	wrong?: string;
	onChange: (text: string) => void;
	/** Where its files go; none while it is only looked at. */
	files?: string;
}) {
	const label = `${field.label}${field.unit ? ` (${field.unit})` : ""}${field.required ? "" : /[?.!]$/.test(field.label) ? " (if you like)" : ", if you like"}`;
	const shared = { label, hint: field.hint, wrong };
	switch (field.sort) {
		case "Heading":
			return <h2 className="rule mt-3 pb-1">{field.label}</h2>;
		case "Consent":
			return (
				<Tick
					label={field.label}
					wrong={wrong}
					checked={value === "yes"}
					onChange={(yes) => onChange(yes ? "yes" : "")}
				/>
			);
		case "AnyOf":
			return (
				<fieldset>
					<legend className="label">{label}</legend>
					<div className="grid gap-1.5">
						{field.options?.map((option) => (
							<Tick
								key={option}
								label={option}
								checked={lines(value).includes(option)}
								onChange={(yes) =>
									onChange(
										(field.options ?? [])
											.filter((one) =>
												one === option ? yes : lines(value).includes(one),
											)
											.join("\n"),
									)
								}
							/>
						))}
					</div>
					{(wrong ?? field.hint) && (
						<p className={wrong ? "wrong" : "under"}>{wrong ?? field.hint}</p>
					)}
				</fieldset>
			);
		case "OneOf":
			return (
				<Select
					{...shared}
					value={value}
					onChange={(e) => onChange(e.target.value)}
				>
					<option value="">Choose</option>
					{field.options?.map((option) => (
						<option key={option}>{option}</option>
					))}
				</Select>
			);
		case "LongText":
		case "Address":
			return (
				<TextArea
					{...shared}
					rows={field.sort === "Address" ? 3 : 4}
					value={value}
					onChange={(e) => onChange(e.target.value)}
				/>
			);
		case "Date":
			return <DateField {...shared} value={value} onChange={onChange} />;
		case "File":
			return (
				<FilesField
					label={label}
					hint={field.hint}
					wrong={wrong}
					value={value}
					address={files}
					onChange={onChange}
				/>
			);
		case "Number":
		case "Amount":
			return (
				<SizeField
					{...shared}
					sort={field.sort}
					unit={field.unit}
					placeholder={field.sort === "Amount" ? "1200, or 1200-2000" : ""}
					value={value}
					onChange={onChange}
				/>
			);
		default:
			return (
				<TextField
					{...shared}
					type={inputTypes[field.sort] ?? "text"}
					value={value}
					onChange={(e) => onChange(e.target.value)}
				/>
			);
	}
}
