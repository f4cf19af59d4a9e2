import type { DueSort, PlanPartDto } from "../../api/schema";
import { Select, TextField } from "../../ui/Fields";

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
				<button
					type="button"
					className="btn ml-auto"
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
				</button>
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
						<TextField
							label="Date"
							type="date"
							value={part.date ?? ""}
							onChange={(e) => set(i, { date: e.target.value || null })}
						/>
					) : (
						<TextField
							label={
								part.sort === "OnBooking"
									? "Days after signing"
									: `Days after the ${mainDate} (minus: before)`
							}
							type="number"
							value={part.days}
							onChange={(e) => set(i, { days: Number(e.target.value) })}
						/>
					)}
					{part.sort === "OnBooking" ? (
						<p className="under pb-2">invoiced with the signature</p>
					) : (
						<TextField
							label="Invoiced, days before it is due"
							type="number"
							min={0}
							value={part.invoiceDaysBefore}
							onChange={(e) =>
								set(i, { invoiceDaysBefore: Number(e.target.value) })
							}
						/>
					)}
					<button
						type="button"
						className="btn"
						aria-label={`Leave out payment ${i + 1}`}
						onClick={() => onChange(plan.filter((_, at) => at !== i))}
					>
						Leave out
					</button>
				</fieldset>
			))}
		</section>
	);
}
