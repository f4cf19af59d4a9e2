import type { HappenedSort, RecordDto } from "../../api/schema";
import { Choice, Choices } from "../../ui/Choice";
import { DateField } from "../../ui/DateField";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { TimeField } from "../../ui/TimeField";
import { Cancelling } from "./Cancelling";
import { EndLetter } from "./EndLetter";
import { Paid } from "./HappenedPaid";
import { Price } from "./HappenedPrice";
import { SignedPaper } from "./SignedPaper";
import type { Part, Said } from "./said";

export type Fields = {
	sort: HappenedSort;
	record: RecordDto;
	said: Said;
	wrong: (field: string) => string | undefined;
	onChange: (part: Partial<Said>) => void;
};

/** What goes with an event: who said what, how much, when. */
export function Details({ sort, record, said, wrong, onChange }: Fields) {
	const text = textLabel(sort);
	const { ends } = record.path.happen.can.find((one) => one.sort === sort) ?? {
		ends: false,
	};
	return (
		<>
			{text && (
				<TextField
					label={text}
					value={said.words}
					wrong={wrong("words") ?? wrong("name")}
					onChange={(e) => onChange({ words: e.target.value })}
				/>
			)}
			{sort === "Milestone" && (
				<Select
					label="Which step"
					value={said.words}
					wrong={wrong("words")}
					onChange={(e) => onChange({ words: e.target.value })}
				>
					{record.path.happen.milestones.map((one) => (
						<option key={one}>{one}</option>
					))}
				</Select>
			)}
			{(sort === "PriceAgreed" || sort === "BookedStraightAway") && (
				<Price
					said={said}
					wrong={wrong}
					onChange={onChange}
					onBooking={sort === "PriceAgreed"}
				/>
			)}
			{(sort === "Referred" || sort === "NotAFit") && (
				<EndLetter
					sort={sort}
					record={record}
					said={said}
					wrong={wrong}
					onChange={onChange}
				/>
			)}
			{sort === "Paid" && (
				<Paid record={record} said={said} wrong={wrong} onChange={onChange} />
			)}
			{sort === "SignedOnPaper" && (
				<SignedPaper
					record={record}
					said={said}
					wrong={wrong}
					onChange={onChange}
				/>
			)}
			{sort === "Rest" && (
				<DateField
					label="Until"
					hint="left empty, you are asked again in 14 days"
					value={said.until}
					wrong={wrong("until")}
					onChange={(day) => onChange({ until: day })}
				/>
			)}
			{sort === "Cancelled" && (
				<Cancelling
					record={record}
					said={said}
					wrong={wrong}
					onChange={onChange}
				/>
			)}
			{ends && !said.terms && record.sheet.toPay.invoices.length > 0 && (
				<Tick
					label={
						<>
							Credit what is unpaid:{" "}
							{record.sheet.toPay.invoices.map((one) => one.words).join("; ")}
						</>
					}
					checked={said.credit}
					onChange={(checked) => onChange({ credit: checked })}
				/>
			)}
			{(ends || sort === "Rest") &&
				(record.sheet.money?.recurring.length ?? 0) > 0 && (
					<Choices
						label={`The recurring invoice, ${record.sheet.money?.recurring.map((one) => one.words).join("; ")}`}
						value={said.recurring}
						wrong={wrong("recurring")}
						onChange={(then) =>
							onChange({ recurring: then as Part["said"]["recurring"] })
						}
					>
						<Choice value="Stop">comes no more</Choice>
						<Choice value="GoOn">goes on</Choice>
					</Choices>
				)}
			{sort !== "Rest" && sort !== "Countersign" && (
				<div className="flex flex-wrap gap-3">
					<DateField
						label="On"
						back
						hint="today, unless it was earlier"
						value={said.on}
						wrong={wrong("on")}
						onChange={(day) => onChange({ on: day })}
					/>
					{sort === "Call" && (
						<TimeField
							label="At"
							hint="the time, if you know it"
							value={said.at}
							wrong={wrong("at")}
							onChange={(at) => onChange({ at })}
						/>
					)}
				</div>
			)}
		</>
	);
}

export function textLabel(sort: HappenedSort): string | undefined {
	switch (sort) {
		case "Call":
			return "What was said";
		case "Countersign":
			return "Your full name, as your signature";
		case "Rest":
		case "Waived":
			return "The reason";
		case "Referred":
			return "To whom, or why";
		case "BookedStraightAway":
			return "Why without a contract";
		case "NotAFit":
		case "Lost":
		case "GoneQuiet":
		case "Cancelled":
		case "NotAnInquiry":
			return "The reason, if you know it";
		default:
			return undefined;
	}
}
