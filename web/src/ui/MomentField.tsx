import { useEffect, useRef, useState } from "react";
import { DateField } from "./DateField";
import type { About } from "./Labelled";
import { TimeField } from "./TimeField";

/** A day and a time on the studio's clock: “2027-03-12T09:30:00”; empty until both are there. */
export function MomentField({
	label,
	wrong,
	hint,
	hidden,
	value,
	back,
	onChange,
}: About & {
	value: string;
	back?: boolean;
	onChange: (value: string) => void;
}) {
	const [[day, time], setBoth] = useState(() => parts(value));
	const sent = useRef(value);
	useEffect(() => {
		if (value === sent.current) return;
		sent.current = value;
		setBoth(parts(value));
	}, [value]);
	function change(nextDay: string, nextTime: string) {
		setBoth([nextDay, nextTime]);
		sent.current = nextDay && nextTime ? `${nextDay}T${nextTime}` : "";
		onChange(sent.current);
	}
	return (
		<div className="grid grid-cols-[minmax(0,1fr)_88px] items-start gap-2">
			<DateField
				label={label}
				wrong={wrong}
				hint={hint}
				hidden={hidden}
				value={day}
				back={back}
				onChange={(next) => change(next, time)}
			/>
			<TimeField
				label="at"
				about={label}
				hidden={hidden}
				value={time}
				onChange={(next) => change(day, next)}
			/>
		</div>
	);
}

const parts = (value: string): [string, string] => {
	const [day = "", time = ""] = value.split("T");
	return [day, time];
};
