import type { IsoDayOfWeek, OpenSpan } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Select } from "../../ui/Select";
import { TimeField } from "../../ui/TimeField";

export const days: IsoDayOfWeek[] = [
	"Monday",
	"Tuesday",
	"Wednesday",
	"Thursday",
	"Friday",
	"Saturday",
	"Sunday",
];

export function Hours({
	hours,
	wrong,
	onChange,
}: {
	hours: readonly OpenSpan[];
	wrong: (at: number) => string | undefined;
	onChange: (hours: OpenSpan[]) => void;
}) {
	const set = (at: number, part: Partial<OpenSpan>) =>
		onChange(hours.map((one, i) => (i === at ? { ...one, ...part } : one)));
	return (
		<ul className="grid gap-2">
			{hours.map((span, i) => (
				<li key={i} className="flex flex-wrap items-end gap-2">
					<Select
						label="Day"
						hidden={i > 0}
						value={span.day}
						onChange={(e) => set(i, { day: e.target.value as IsoDayOfWeek })}
					>
						{days.map((day) => (
							<option key={day}>{day}</option>
						))}
					</Select>
					<TimeField
						label="From"
						hidden={i > 0}
						value={span.from}
						onChange={(time) => set(i, { from: time })}
					/>
					<TimeField
						label="Until"
						hidden={i > 0}
						value={span.until}
						wrong={wrong(i)}
						onChange={(time) => set(i, { until: time })}
					/>
					<Button
						kind="word"
						size="small"
						className="pb-2"
						onClick={() => onChange(hours.filter((_, at) => at !== i))}
					>
						take out
					</Button>
				</li>
			))}
			<li>
				<Button
					onClick={() =>
						onChange([
							...hours,
							{ day: "Monday", from: "10:00:00", until: "12:00:00" },
						])
					}
				>
					Add hours
				</Button>
			</li>
		</ul>
	);
}
