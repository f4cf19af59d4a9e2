import { Select } from "../ui/Select";

/** How much something matters or takes, 1 to 3, each in a word. */
export function WeightSelect({
	label,
	words,
	empty = "not said",
	value,
	wrong,
	onChange,
}: {
	label: string;
	/** From 1 to 3. */
	words: readonly [string, string, string];
	empty?: string;
	value: number | null;
	wrong?: string;
	onChange: (value: number | null) => void;
}) {
	return (
		<Select
			label={label}
			value={value ?? ""}
			wrong={wrong}
			onChange={(e) => onChange(e.target.value ? Number(e.target.value) : null)}
		>
			<option value="">{empty}</option>
			{words.map((word, at) => (
				<option key={word} value={at + 1}>
					{at + 1}, {word}
				</option>
			))}
		</Select>
	);
}
