import type { DueSort, PlanPartDto, SizeSort } from "../../api/schema";
import { Button } from "../../ui/Button";
import { CountField } from "../../ui/CountField";
import { DateField } from "../../ui/DateField";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";
import { newPayment } from "./newParts";

/** When the price is due: shares, or fixed amounts and shares of the rest. */
export function Plan({
	plan,
	mainDate,
	dates,
	amends,
	wrong,
	onChange,
}: {
	plan: readonly PlanPartDto[];
	mainDate: string;
	/** The project's other dates. */
	dates: readonly string[];
	/** Whether it is what an amendment leaves to be paid. */
	amends?: boolean;
	wrong: (at: number, field: string) => string | undefined;
	onChange: (plan: PlanPartDto[]) => void;
}) {
	const set = (at: number, part: Partial<PlanPartDto>) =>
		onChange(plan.map((one, i) => (i === at ? { ...one, ...part } : one)));
	const rest = plan.some((part) => part.amount !== null);
	return (
		<section id="offer-plan">
			<h2 className="pb-1">
				{amends ? "How what is left is paid" : "Payments"}
			</h2>
			{plan.map((part, i) => (
				<fieldset
					key={i}
					aria-label={`Payment ${i + 1}`}
					className="grid grid-cols-2 items-start gap-2 border-b border-hair py-2 md:grid-cols-[84px_120px_170px_1fr_1fr_auto] md:[&_.label]:flex md:[&_.label]:min-h-9 md:[&_.label]:items-end"
				>
					<TextField
						label={part.amount === null ? "Share %" : "Amount"}
						inputMode="decimal"
						className="num text-right"
						value={part.amount ?? part.share}
						wrong={wrong(i, part.amount === null ? "share" : "amount")}
						onChange={(e) =>
							set(
								i,
								part.amount === null
									? { share: e.target.value }
									: { amount: e.target.value },
							)
						}
					/>
					<Select
						label="Of what"
						value={part.amount === null ? "Share" : "Amount"}
						onChange={(e) =>
							set(
								i,
								(e.target.value as SizeSort) === "Amount"
									? { amount: "0", share: "0" }
									: { amount: null },
							)
						}
					>
						<option value="Share">
							{rest || amends ? "of the rest" : "of the price"}
						</option>
						<option value="Amount">an amount</option>
					</Select>
					<Select
						label="Due"
						value={part.sort === "AroundDate" ? `date:${part.name}` : part.sort}
						onChange={(e) =>
							set(
								i,
								e.target.value.startsWith("date:")
									? { sort: "AroundDate", name: e.target.value.slice(5) }
									: { sort: e.target.value as DueSort, name: null },
							)
						}
					>
						<option value="OnBooking">
							{amends ? "after signing" : "on booking"}
						</option>
						{mainDate && (
							<option value="AroundMainDate">around the {mainDate}</option>
						)}
						{namesOf(part, dates).map((name) => (
							<option key={name} value={`date:${name}`}>
								around: {name}
							</option>
						))}
						<option value="OnDate">on a date</option>
						<option value="OnHandover">on handover</option>
					</Select>
					<When
						part={part}
						mainDate={mainDate}
						wrong={(field) => wrong(i, field)}
						onChange={(one) => set(i, one)}
					/>
					<Button
						className="md:mt-9"
						onClick={() => onChange(plan.filter((_, at) => at !== i))}
					>
						leave out<span className="sr-only"> payment {i + 1}</span>
					</Button>
				</fieldset>
			))}
			<Button className="mt-2" onClick={() => onChange([...plan, newPayment])}>
				Add a payment
			</Button>
		</section>
	);
}

/** With the one it hangs on, also where the project has no such date yet. */
const namesOf = (part: PlanPartDto, dates: readonly string[]) => [
	...new Set([...dates, ...(part.name ? [part.name] : [])]),
];

function When({
	part,
	mainDate,
	wrong,
	onChange,
}: {
	part: PlanPartDto;
	mainDate: string;
	wrong: (field: string) => string | undefined;
	onChange: (part: Partial<PlanPartDto>) => void;
}) {
	const name = part.name ?? mainDate;
	const label = {
		OnBooking: "Days after signing",
		OnHandover: "Days after the handover",
		AroundMainDate: `Days after the ${name} (minus: before)`,
		AroundDate: `Days after the ${name} (minus: before)`,
		OnDate: "",
	}[part.sort];
	return (
		<>
			{part.sort === "OnDate" ? (
				<DateField
					label="Date"
					value={part.date ?? ""}
					wrong={wrong("date")}
					onChange={(day) => onChange({ date: day || null })}
				/>
			) : (
				<CountField
					label={label}
					value={part.days}
					wrong={wrong("days")}
					onChange={(count) => onChange({ days: count ?? 0 })}
				/>
			)}
			{part.sort === "OnBooking" || part.sort === "OnHandover" ? (
				<p className="under md:pt-6">
					invoiced with the{" "}
					{part.sort === "OnBooking" ? "signature" : "handover"}
				</p>
			) : (
				<CountField
					label="Invoiced, days before it is due"
					min={0}
					value={part.invoiceDaysBefore}
					onChange={(count) => onChange({ invoiceDaysBefore: count ?? 0 })}
				/>
			)}
		</>
	);
}
