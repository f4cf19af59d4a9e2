import { answer, api } from "../api/client";
import { type About, Labelled } from "./Labelled";
import { useTyped } from "./useTyped";

/** A time of day, typed as people write it: “9”, “9:30”, “3 pm”. `value` is “09:30:00”, empty for none, or what was typed until it reads. */
export function TimeField({
	value,
	wrong,
	hint,
	disabled,
	onChange,
	...about
}: About & {
	value: string;
	disabled?: boolean;
	onChange: (value: string) => void;
}) {
	const typed = useTyped(read, value, hoursAndMinutes, onChange);
	return (
		<Labelled {...about} wrong={typed.wrong ?? wrong} hint={hint}>
			{(tied) => (
				<input
					className="field num max-w-28 min-w-20"
					autoComplete="off"
					placeholder="9:30"
					value={typed.text}
					disabled={disabled}
					onChange={(e) => typed.type(e.target.value)}
					onBlur={typed.leave}
					onKeyDown={typed.enter}
					aria-busy={typed.busy}
					{...tied}
				/>
			)}
		</Labelled>
	);
}

const read = (text: string) =>
	answer(api.GET("/typed/time", { params: { query: { text } } }));

/** “09:30” of “09:30:00”, or “9:30 am” where the studio counts so. */
function hoursAndMinutes(time: string) {
	const [, hours, minutes] = /^(\d\d):(\d\d)(?::\d\d)?$/.exec(time) ?? [];
	if (!hours) return time;
	if (document.documentElement.dataset.clock !== "Twelve")
		return `${hours}:${minutes}`;
	return `${Number(hours) % 12 || 12}:${minutes} ${Number(hours) < 12 ? "am" : "pm"}`;
}
