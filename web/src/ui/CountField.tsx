import { type About, Labelled } from "./Labelled";

/** A whole number, such as days or minutes. */
export function CountField({
	value,
	min,
	max,
	disabled,
	onChange,
	...about
}: About & {
	value: number | string | null;
	min?: number;
	max?: number;
	disabled?: boolean;
	/** Null while it is empty. */
	onChange: (value: number | null) => void;
}) {
	return (
		<Labelled {...about}>
			{(tied) => (
				<input
					type="number"
					className="field num"
					inputMode="numeric"
					min={min}
					max={max}
					disabled={disabled}
					value={value ?? ""}
					onChange={(e) =>
						onChange(e.target.value === "" ? null : Number(e.target.value))
					}
					{...tied}
				/>
			)}
		</Labelled>
	);
}
