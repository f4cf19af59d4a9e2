import type { PriceStepDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { TextField } from "../../ui/TextField";

/** Another price of one, from a quantity on. */
export function PriceSteps({
	steps,
	wrong,
	onChange,
}: {
	steps: readonly PriceStepDto[];
	wrong: (at: number, field: "from" | "unitPrice") => string | undefined;
	onChange: (steps: PriceStepDto[]) => void;
}) {
	const set = (at: number, part: Partial<PriceStepDto>) =>
		onChange(steps.map((one, i) => (i === at ? { ...one, ...part } : one)));
	return (
		<div className="grid gap-2">
			{steps.map((step, i) => (
				<fieldset
					key={i}
					aria-label={`Price step ${i + 1}`}
					className="grid max-w-md grid-cols-[1fr_1fr_auto] items-end gap-2"
				>
					<TextField
						label="From a quantity of"
						inputMode="decimal"
						className="num text-right"
						value={step.from}
						wrong={wrong(i, "from")}
						onChange={(e) => set(i, { from: e.target.value })}
					/>
					<TextField
						label="the price of one"
						inputMode="decimal"
						className="num text-right"
						value={step.unitPrice}
						wrong={wrong(i, "unitPrice")}
						onChange={(e) => set(i, { unitPrice: e.target.value })}
					/>
					<Button onClick={() => onChange(steps.filter((_, at) => at !== i))}>
						leave out
						<span className="sr-only">: from {step.from}</span>
					</Button>
				</fieldset>
			))}
			<div>
				<Button
					onClick={() => onChange([...steps, { from: "10", unitPrice: "0" }])}
				>
					Another price from a quantity on
				</Button>
			</div>
		</div>
	);
}
