import { TextArea } from "../../ui/TextArea";
import { TimeField } from "../../ui/TimeField";
import { Section } from "../templates/Section";
import { Hours } from "./Hours";
import type { Part } from "./StudioPage";

/** Open hours, sending hours and days off. */
export function HoursSection({ said, wrong, set, keep }: Part) {
	const { hours } = said;
	return (
		<Section
			id="hours"
			title="Hours"
			under="when meetings can be, and when letters leave"
		>
			<Hours
				hours={hours.openHours}
				wrong={(i) => wrong(`hours.openHours[${i}]`)}
				onChange={(openHours) => set("hours", { openHours })}
			/>
			<div className="grid gap-3 pt-4 md:grid-cols-3">
				<TimeField
					label="Letters of routines leave from"
					value={hours.sendFrom}
					onChange={(time) => set("hours", { sendFrom: time })}
				/>
				<TimeField
					label="until"
					value={hours.sendUntil}
					wrong={wrong("hours.sendUntil")}
					onChange={(time) => set("hours", { sendUntil: time })}
				/>
				<TextArea
					label="Days off, one a line"
					hint="such as 24 dec 2027; Saturdays and Sundays are off anyway for letters"
					rows={3}
					value={hours.daysOff.join("\n")}
					onChange={(e) =>
						set("hours", { daysOff: e.target.value.split("\n") })
					}
					wrong={wrong("hours.daysOff")}
				/>
			</div>
			{keep}
		</Section>
	);
}
