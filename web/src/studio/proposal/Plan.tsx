import type { DueSort, PlanPartDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { CountField } from "../../ui/CountField";
import { DateField } from "../../ui/DateField";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";

/** When the price is due, in shares. */
export function Plan({
	plan,
	mainDate,
	onChange,
}: {
	plan: PlanPartDto[];
	mainDate: string;
	onChange: (plan: PlanPartDto[]) => void;
}) {
	const set = (at: number, part: Partial<PlanPartDto>) =>
		onChange(plan.map((one, i) => (i === at ? { ...one, ...part } : one)));
	return (
		<section>
			<div className="rule flex items-end pb-2">
				<h2>Payments</h2>
				<Button
					className="ml-auto"
					onClick={() =>
						onChange([
							...plan,
							{
								share: "0",
								sort: "AroundMainDate",
								days: 0,
								date: null,
								invoiceDaysBefore: 14,
							},
						])
					}
				>
					Add a payment
				</Button>
			</div>
			{plan.map((part, i) => (
				<fieldset
					key={i}
					aria-label={`Payment ${i + 1}`}
					className="grid grid-cols-2 items-end gap-2 border-b border-hair py-3 md:grid-cols-[90px_220px_1fr_1fr_auto]"
				>
					<TextField
						label="Share %"
						inputMode="decimal"
						className="num text-right"
						value={part.share}
						onChange={(e) => set(i, { share: e.target.value })}
					/>
					<Select
						label="Due"
						value={part.sort}
						onChange={(e) => set(i, { sort: e.target.value as DueSort })}
					>
						<option value="OnBooking">on booking</option>
						<option value="AroundMainDate">around the {mainDate}</option>
						<option value="OnDate">on a date</option>
					</Select>
					{part.sort === "OnDate" ? (
						<DateField
							label="Date"
							value={part.date ?? ""}
							onChange={(day) => set(i, { date: day || null })}
						/>
					) : (
						<CountField
							label={
								part.sort === "OnBooking"
									? "Days after signing"
									: `Days after the ${mainDate} (minus: before)`
							}
							value={part.days}
							onChange={(count) => set(i, { days: count ?? 0 })}
						/>
					)}
					{part.sort === "OnBooking" ? (
						<p className="under pb-2">invoiced with the signature</p>
					) : (
						<CountField
							label="Invoiced, days before it is due"
							min={0}
							value={part.invoiceDaysBefore}
							onChange={(count) => set(i, { invoiceDaysBefore: count ?? 0 })}
						/>
					)}
					<Button
						aria-label={`Leave out payment ${i + 1}`}
						onClick={() => onChange(plan.filter((_, at) => at !== i))}
					>
						Leave out
					</Button>
				</fieldset>
			))}
		</section>
	);
}
