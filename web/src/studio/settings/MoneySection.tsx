import { CountField } from "../../ui/CountField";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";
import { Section } from "../templates/Section";
import type { Part } from "./StudioPage";

/** Currency, bank, tax number, and how invoices are numbered. */
export function MoneySection({ said, studio, wrong, set, keep }: Part) {
	const field = (
		key: "taxNumber" | "bank" | "iban" | "bic" | "invoiceSeries",
		label: string,
		hint?: string,
	) => (
		<TextField
			label={label}
			hint={hint}
			value={said.money[key]}
			wrong={wrong(`money.${key}`)}
			onChange={(e) => set("money", { [key]: e.target.value })}
		/>
	);
	return (
		<Section
			title="Money and invoices"
			under={`${studio.said.money.currency}, next invoice ${studio.said.money.nextNumber}`}
		>
			<div className="grid gap-3 md:grid-cols-3">
				<Select
					label="Currency"
					value={said.money.currency}
					wrong={wrong("money.currency")}
					onChange={(e) => set("money", { currency: e.target.value })}
				>
					{studio.choices.currencies.map((one) => (
						<option key={one}>{one}</option>
					))}
				</Select>
				{field("taxNumber", "Tax number")}
				{field("bank", "Bank")}
				{field("iban", "IBAN")}
				{field("bic", "BIC")}
				<div />
				{field(
					"invoiceSeries",
					"Letters before an invoice’s number",
					"such as MU for MU2027-001; left empty, the year comes first",
				)}
				<CountField
					label="First invoice of this year"
					hint="if you come with invoices of your own; numbers have no gaps after it"
					min={1}
					value={said.money.invoiceFirst}
					wrong={wrong("money.invoiceFirst")}
					onChange={(count) => set("money", { invoiceFirst: count ?? 0 })}
				/>
			</div>
			{keep}
		</Section>
	);
}
