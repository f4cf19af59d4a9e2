import type { SaveStudioDto, StyleChoiceDto } from "../../api/schema";
import { Select } from "../../ui/Select";
import { Section } from "../templates/Section";
import type { Part } from "./StudioPage";

/** How numbers, days and times are written, here and for clients. */
export function Style({ said, studio, wrong, set, keep }: Part) {
	const { choices } = studio;
	const choose = (
		key: "numbers" | "days" | "clock",
		label: string,
		from: readonly StyleChoiceDto[],
	) => (
		<Select
			label={label}
			value={said.style[key]}
			wrong={wrong(`style.${key}`)}
			onChange={(e) =>
				set("style", { [key]: e.target.value } as Partial<
					SaveStudioDto["style"]
				>)
			}
		>
			{from.map((one) => (
				<option key={one.value} value={one.value}>
					{one.looks}
				</option>
			))}
		</Select>
	);
	return (
		<Section
			title="Numbers, days and times"
			under={[
				choices.numbers.find((one) => one.value === said.style.numbers)?.looks,
				choices.clocks.find((one) => one.value === said.style.clock)?.looks,
				said.style.zone,
			].join("; ")}
		>
			<div className="grid gap-3 md:grid-cols-4">
				{choose("numbers", "Numbers", choices.numbers)}
				{choose("days", "Days", choices.days)}
				{choose("clock", "Times", choices.clocks)}
				<Select
					label="Time zone"
					value={said.style.zone}
					wrong={wrong("style.zone")}
					onChange={(e) => set("style", { zone: e.target.value })}
				>
					{!choices.zones.includes(said.style.zone) && (
						<option>{said.style.zone}</option>
					)}
					{choices.zones.map((one) => (
						<option key={one}>{one}</option>
					))}
				</Select>
			</div>
			{keep}
		</Section>
	);
}
