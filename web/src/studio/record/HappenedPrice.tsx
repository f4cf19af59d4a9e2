import { AmountField } from "../../ui/AmountField";
import { TextField } from "../../ui/TextField";
import type { Part } from "./said";

export function Price({
	said,
	wrong,
	onChange,
	onBooking,
}: Part & { onBooking: boolean }) {
	return (
		<div className="grid grid-cols-3 gap-3">
			<AmountField
				label="Price, before tax"
				value={said.amount}
				wrong={wrong("amount")}
				onChange={(amount) => onChange({ amount })}
			/>
			<TextField
				label="Tax %"
				inputMode="decimal"
				value={said.tax}
				wrong={wrong("tax")}
				onChange={(e) => onChange({ tax: e.target.value })}
			/>
			{onBooking && (
				<TextField
					label="On booking %"
					inputMode="decimal"
					value={said.onBooking}
					wrong={wrong("onBooking")}
					onChange={(e) => onChange({ onBooking: e.target.value })}
				/>
			)}
		</div>
	);
}
