import type { KindWorkDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { CountField } from "../../ui/CountField";
import { TextField } from "../../ui/TextField";

/** What is kept of the price when a project is cancelled, by days before its date. */
export function CancelTerms({
	said,
	wrong,
	change,
}: {
	said: KindWorkDto;
	wrong: (field: string) => string | undefined;
	change: (part: Partial<KindWorkDto>) => void;
}) {
	const terms = said.cancelTerms ?? [];
	const put = (at: number, part: Partial<(typeof terms)[0]>) =>
		change({
			cancelTerms: terms.map((one, i) =>
				i === at ? { ...one, ...part } : one,
			),
		});
	return (
		<fieldset>
			<legend className="label">When it is cancelled</legend>
			<p className="under pb-2">
				What of the agreed price is kept, by how close the date is. Shown before
				anything is done; without a line nothing is kept. The contract says it
				where its text has the blank [cancelling].
			</p>
			<ul className="grid gap-2">
				{terms.map((step, i) => (
					<li
						key={i}
						aria-label={`Cancelled ${step.daysBefore} days before`}
						className="grid grid-cols-[1fr_1fr] gap-2 md:grid-cols-[200px_200px_auto]"
					>
						<CountField
							label="Days before, or later"
							min={0}
							value={step.daysBefore}
							wrong={wrong(`work.cancelTerms[${i}].daysBefore`)}
							onChange={(days) => put(i, { daysBefore: days ?? 0 })}
						/>
						<TextField
							label="Kept, %"
							value={step.keeps}
							wrong={wrong(`work.cancelTerms[${i}].keeps`)}
							onChange={(e) => put(i, { keeps: e.target.value })}
						/>
						<span className="flex items-end pb-2">
							<Button
								kind="word"
								size="small"
								onClick={() =>
									change({ cancelTerms: terms.filter((_, at) => at !== i) })
								}
							>
								take out
								<span className="sr-only">: {step.daysBefore} days</span>
							</Button>
						</span>
					</li>
				))}
			</ul>
			<Button
				className="mt-2"
				onClick={() =>
					change({ cancelTerms: [...terms, { daysBefore: 14, keeps: "50" }] })
				}
			>
				Add a line
			</Button>
		</fieldset>
	);
}
