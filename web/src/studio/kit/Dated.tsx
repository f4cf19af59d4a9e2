import { useState } from "react";
import { AmountField } from "../../ui/AmountField";
import { DateField } from "../../ui/DateField";
import { MomentField } from "../../ui/MomentField";
import { Month } from "../../ui/Month";
import { TimeField } from "../../ui/TimeField";
import { Part } from "./Part";

/** Days, times and amounts: typed as people write them, read at once. */
export function Dated() {
	const [day, setDay] = useState("2027-03-12");
	const [none, setNone] = useState("");
	const [time, setTime] = useState("09:30:00");
	const [moment, setMoment] = useState("2027-03-12T09:30:00");
	const [amount, setAmount] = useState("1200.50");
	return (
		<>
			<Part name="Date">
				<DateField label="Day" value={day} onChange={setDay} />
				<DateField
					label="Day to come"
					hint="“fri” is the next one"
					value={none}
					onChange={setNone}
				/>
				<DateField
					label="Day it happened"
					back
					hint="“fri” is the last one"
					value={none}
					onChange={setNone}
				/>
				<DateField
					label="Day"
					about="refused"
					wrong="A date from 1900 to 2199, such as 2027-03-12."
					value="soon"
					onChange={() => undefined}
				/>
				<DateField
					label="Day"
					about="not now"
					disabled
					value={day}
					onChange={() => undefined}
				/>
			</Part>
			<Part name="Month">
				<div className="w-[252px] border border-hair bg-sheet p-3">
					<Month quiet day="2031-03-12" today="2031-03-04" onPick={setDay} />
				</div>
			</Part>
			<Part name="Time">
				<TimeField label="From" value={time} onChange={setTime} />
				<TimeField
					label="Until"
					wrong="Later than it begins."
					value="08:00:00"
					onChange={() => undefined}
				/>
				<MomentField label="Goes out" value={moment} onChange={setMoment} />
			</Part>
			<Part name="Amount">
				<AmountField
					label="Price, before tax"
					value={amount}
					onChange={setAmount}
				/>
				<AmountField
					label="Price"
					about="refused"
					wrong="Give an amount above 0, such as 1200.50."
					value="free"
					onChange={() => undefined}
				/>
			</Part>
		</>
	);
}
