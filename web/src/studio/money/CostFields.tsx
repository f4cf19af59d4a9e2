import type { Refusal } from "../../api/refusal";
import type { BookUsualDto } from "../../api/schema";
import { AmountField } from "../../ui/AmountField";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";

/** What every cost and every income says. */
export type Said = {
	what: string;
	who: string;
	category: string;
	amount: string;
	tax: string;
	account: number | null;
};

/** The fields that costs and income have in common. */
export function CostFields({
	said,
	who,
	usual,
	refusal,
	onChange,
}: {
	said: Said;
	/** What the other side is called, and by which field it is refused. */
	who: { label: string; field: string };
	usual?: BookUsualDto;
	refusal?: Refusal;
	onChange: (said: Said) => void;
}) {
	const text = (
		name: "what" | "who" | "category" | "tax",
		field = name as string,
	) => ({
		value: said[name],
		wrong: refusal?.of(field),
		onChange: (e: { target: { value: string } }) =>
			onChange({ ...said, [name]: e.target.value }),
	});
	return (
		<>
			<TextField label="What for" {...text("what")} />
			<div className="grid grid-cols-[1fr_110px] gap-3">
				<AmountField
					label="Amount, with its tax"
					value={said.amount}
					wrong={refusal?.of("amount")}
					onChange={(amount) => onChange({ ...said, amount })}
				/>
				<TextField label="Tax in it, %" {...text("tax")} />
			</div>
			<div className="grid gap-3 sm:grid-cols-2">
				<TextField
					label={who.label}
					list="book-payees"
					{...text("who", who.field)}
				/>
				<TextField
					label="Category"
					list="book-categories"
					{...text("category")}
				/>
			</div>
			<datalist id="book-categories">
				{usual?.categories.map((one) => (
					<option key={one} value={one} />
				))}
			</datalist>
			<datalist id="book-payees">
				{usual?.payees.map((one) => (
					<option key={one} value={one} />
				))}
			</datalist>
			{usual && usual.accounts.length > 0 && (
				<Select
					label="Account"
					value={said.account ?? ""}
					wrong={refusal?.of("account")}
					onChange={(e) =>
						onChange({ ...said, account: Number(e.target.value) || null })
					}
				>
					<option value="">the first of its currency</option>
					{usual.accounts.map((one) => (
						<option key={one.id} value={one.id}>
							{one.name}, {one.currency}
						</option>
					))}
				</Select>
			)}
		</>
	);
}
