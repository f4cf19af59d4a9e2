import { useState } from "react";
import type { FormField, UploadedDto } from "../api/schema";
import { Select, TextArea, TextField } from "../ui/Fields";
import { type Refusal, upload } from "../ui/http";

export type Answers = Record<string, string>;

const lines = (text: string) => text.split("\n").filter(Boolean);

/** The fields that stand on the page with these answers; the server decides again when they are sent. */
export function shownFields(
	fields: readonly FormField[],
	answers: Answers,
): FormField[] {
	const shown: FormField[] = [];
	for (const field of fields) {
		const condition = field.shownIf;
		if (
			!condition ||
			(shown.some((above) => above.key === condition.field) &&
				lines(answers[condition.field] ?? "").some((one) =>
					condition.is.includes(one),
				))
		)
			shown.push(field);
	}
	return shown;
}

const inputTypes: Partial<Record<FormField["sort"], string>> = {
	Date: "date",
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
				<Ticked
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
							<Ticked
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
		default:
			return (
				<TextField
					{...shared}
					type={inputTypes[field.sort] ?? "text"}
					inputMode={
						field.sort === "Number" || field.sort === "Amount"
							? "decimal"
							: undefined
					}
					placeholder={field.sort === "Amount" ? "1200, or 1200-2000" : ""}
					value={value}
					onChange={(e) => onChange(e.target.value)}
				/>
			);
	}
}

function Ticked({
	label,
	checked,
	wrong,
	onChange,
}: {
	label: string;
	checked: boolean;
	wrong?: string;
	onChange: (yes: boolean) => void;
}) {
	return (
		<label className="flex items-start gap-3">
			<input
				type="checkbox"
				className="mt-1 size-5 shrink-0 accent-(--brand)"
				checked={checked}
				aria-invalid={Boolean(wrong)}
				onChange={(e) => onChange(e.target.checked)}
			/>
			<span>
				{label}
				{wrong && <span className="wrong block">{wrong}</span>}
			</span>
		</label>
	);
}

/** Files go at once, one by one; what is kept in the answer are their names of passage. */
function FilesField({
	label,
	hint,
	wrong,
	value,
	address,
	onChange,
}: {
	label: string;
	hint?: string | null;
	wrong?: string;
	value: string;
	address?: string;
	onChange: (text: string) => void;
}) {
	const [sent, setSent] = useState<UploadedDto[]>([]);
	const [problem, setProblem] = useState<string>();
	const [busy, setBusy] = useState("");
	const ids = lines(value);
	async function take(files: File[]) {
		let kept = ids;
		setProblem(undefined);
		for (const file of files) {
			setBusy(file.name);
			try {
				const one = await upload<UploadedDto>(
					`${address}&name=${encodeURIComponent(file.name)}`,
					file,
				);
				setSent((before) => [...before, one]);
				kept = [...kept, one.id];
				onChange(kept.join("\n"));
			} catch (error) {
				const refusal = error as Refusal;
				setProblem(refusal.of("file") ?? refusal.message);
			}
		}
		setBusy("");
	}
	return (
		<div>
			<span className="label">{label}</span>
			<label className="btn">
				Choose files
				<input
					type="file"
					multiple
					aria-label={label}
					disabled={!address}
					className="sr-only"
					onChange={(e) => take([...(e.target.files ?? [])])}
				/>
			</label>
			{hint && <span className="under pl-2">{hint}</span>}
			<ul role="status">
				{busy && <li className="pt-1 text-soft">Sending {busy}</li>}
				{ids.map((id) => (
					<li key={id} className="flex gap-3 pt-1">
						{sent.find((one) => one.id === id)?.name ?? "a file, kept"}
						<button
							type="button"
							className="link text-small"
							onClick={() =>
								onChange(ids.filter((one) => one !== id).join("\n"))
							}
						>
							take out
						</button>
					</li>
				))}
			</ul>
			{(problem ?? wrong) && <p className="wrong">{problem ?? wrong}</p>}
		</div>
	);
}
