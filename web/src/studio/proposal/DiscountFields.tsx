import type { DiscountDto, SizeSort } from "../../api/schema";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";

/** A discount, a share or an amount; with its reason where it is said. */
export function DiscountFields({
	label,
	less,
	why,
	wrong,
	onChange,
}: {
	label: string;
	less: DiscountDto | null;
	/** Whether its reason is asked for. */
	why?: boolean;
	wrong?: string;
	onChange: (less: DiscountDto | null) => void;
}) {
	return (
		<div className="grid gap-2">
			<Tick
				label={label}
				checked={less !== null}
				onChange={(given) =>
					onChange(given ? { sort: "Share", figure: "5", why: "" } : null)
				}
			/>
			{less && (
				<div className="grid grid-cols-2 items-start gap-2 md:grid-cols-[110px_130px_1fr]">
					<TextField
						label="How much"
						inputMode="decimal"
						className="num text-right"
						value={less.figure}
						wrong={wrong}
						onChange={(e) => onChange({ ...less, figure: e.target.value })}
					/>
					<Select
						label="Of what"
						value={less.sort}
						onChange={(e) =>
							onChange({ ...less, sort: e.target.value as SizeSort })
						}
					>
						<option value="Share">per cent</option>
						<option value="Amount">an amount</option>
					</Select>
					{why && (
						<div className="col-span-2 md:col-span-1">
							<TextField
								label="Why"
								placeholder="second project"
								value={less.why}
								onChange={(e) => onChange({ ...less, why: e.target.value })}
							/>
						</div>
					)}
				</div>
			)}
		</div>
	);
}
