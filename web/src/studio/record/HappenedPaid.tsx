import type { PaymentMeans, RecordDto } from "../../api/schema";
import { AmountField } from "../../ui/AmountField";
import { Select } from "../../ui/Select";
import { Tick } from "../../ui/Tick";
import type { Part, Said } from "./said";

export const means: { means: NonNullable<PaymentMeans>; words: string }[] = [
	{ means: "Transfer", words: "by transfer" },
	{ means: "Cheque", words: "by cheque" },
	{ means: "Cash", words: "in cash" },
];

export function Paid({
	record,
	said,
	wrong,
	onChange,
}: Part & { record: RecordDto }) {
	return (
		<>
			{record.sheet.toPay.invoices.length > 0 ? (
				<Select
					label="Invoice"
					value={said.invoice}
					wrong={wrong("invoice")}
					onChange={(e) =>
						onChange({
							invoice: e.target.value,
							amount:
								record.sheet.toPay.invoices.find(
									(one) => String(one.id) === e.target.value,
								)?.owed ?? "",
						})
					}
				>
					{record.sheet.toPay.invoices.map((one) => (
						<option key={one.id} value={one.id}>
							{one.words}
						</option>
					))}
				</Select>
			) : (
				<p className="under">
					No invoice is open: this is kept as paid ahead of the next.
				</p>
			)}
			<div className="grid grid-cols-2 gap-3">
				<AmountField
					label="Amount"
					hint="less, if it came in parts"
					value={said.amount}
					wrong={wrong("amount")}
					onChange={(amount) => onChange({ amount })}
				/>
				<Select
					label="How"
					value={said.means}
					wrong={wrong("means")}
					onChange={(e) => onChange({ means: e.target.value as Said["means"] })}
				>
					{means.map((one) => (
						<option key={one.means} value={one.means}>
							{one.words}
						</option>
					))}
				</Select>
			</div>
			{(said.ahead || wrong("ahead")) && (
				<Tick
					label="More came: keep the rest as paid ahead"
					wrong={said.ahead ? undefined : wrong("ahead")}
					checked={said.ahead}
					onChange={(ahead) => onChange({ ahead })}
				/>
			)}
		</>
	);
}
