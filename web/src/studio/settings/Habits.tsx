import { CountField } from "../../ui/CountField";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { Section } from "../templates/Section";
import type { Part } from "./StudioPage";

/** What proposals begin with, and what is done without asking. */
export function Habits({ said, studio, wrong, set, keep }: Part) {
	const { habits } = studio.said;
	return (
		<Section
			title="Habits"
			under={`${habits.onBooking} % on booking, ${habits.dueDays} days to pay, proposals valid for ${habits.validDays} days`}
		>
			<div className="grid gap-3 md:grid-cols-4">
				<TextField
					label="Due on booking, %"
					hint="the rest by the date that matters"
					inputMode="decimal"
					value={said.habits.onBooking}
					wrong={wrong("habits.onBooking")}
					onChange={(e) => set("habits", { onBooking: e.target.value })}
				/>
				<CountField
					label="Days to pay"
					min={0}
					value={said.habits.dueDays}
					wrong={wrong("habits.dueDays")}
					onChange={(count) => set("habits", { dueDays: count ?? 0 })}
				/>
				<CountField
					label="A proposal is valid for"
					hint="days"
					min={1}
					value={said.habits.validDays}
					wrong={wrong("habits.validDays")}
					onChange={(count) => set("habits", { validDays: count ?? 0 })}
				/>
				<CountField
					label="Put finished projects away after"
					hint="days; left empty, you put them away"
					min={1}
					value={said.habits.putAwayDays}
					wrong={wrong("habits.putAwayDays")}
					onChange={(count) => set("habits", { putAwayDays: count })}
				/>
			</div>
			<div className="pt-3">
				<Tick
					label="My signature is given with every contract as it is sent"
					checked={said.habits.signsAtOnce}
					onChange={(signsAtOnce) => set("habits", { signsAtOnce })}
				/>
			</div>
			<div className="pt-2">
				<Tick
					label="I keep hours: there is a clock, and figures by the hour"
					wrong={wrong("habits.hoursOff")}
					checked={!said.habits.hoursOff}
					onChange={(on) => set("habits", { hoursOff: !on })}
				/>
			</div>
			{keep}
		</Section>
	);
}
