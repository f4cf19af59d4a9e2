import { lazy, Suspense, useState } from "react";
import { answer, api } from "../api/client";
import { Button } from "./Button";
import { dayText, isDay } from "./days";
import { type About, Labelled } from "./Labelled";
import { useTyped } from "./useTyped";

const MonthPicker = lazy(() => import("./MonthPicker"));

/**
 * A day, typed as people write it (“fri”, “12 mar”, “in 3 weeks”) or picked from a month.
 * `value` is a date of ISO 8601, empty for none, or what was typed until it reads.
 */
export function DateField({
	value,
	back,
	wrong,
	hint,
	disabled,
	onChange,
	...about
}: About & {
	value: string;
	/** A day that lies behind: “fri” is the last one. */
	back?: boolean;
	disabled?: boolean;
	onChange: (value: string) => void;
}) {
	const typed = useTyped(
		(text) =>
			answer(
				api.GET("/typed/day", {
					params: { query: { text, lean: back ? "Back" : "Ahead" } },
				}),
			),
		value,
		dayText,
		onChange,
	);
	const [open, setOpen] = useState(false);
	return (
		<Labelled
			{...about}
			wrong={typed.wrong ?? wrong}
			hint={typed.words ? <span aria-live="polite">{typed.words}</span> : hint}
		>
			{(tied) => (
				<div className="relative min-w-40">
					<input
						className="field num pr-14"
						autoComplete="off"
						placeholder="fri, 12 mar"
						value={typed.text}
						disabled={disabled}
						onChange={(e) => typed.type(e.target.value)}
						onBlur={typed.leave}
						onKeyDown={typed.enter}
						aria-busy={typed.busy}
						{...tied}
					/>
					<Suspense
						fallback={<Pick label={about.label} onPress={() => undefined} />}
					>
						{open ? (
							<MonthPicker
								label={about.label}
								day={isDay(value) ? value : undefined}
								onPick={typed.pick}
								onClose={() => setOpen(false)}
							/>
						) : (
							<Pick label={about.label} onPress={() => setOpen(true)} />
						)}
					</Suspense>
				</div>
			)}
		</Labelled>
	);
}

/** Stands in the field until the month is asked for: it comes on demand. */
function Pick({ label, onPress }: { label: string; onPress: () => void }) {
	return (
		<Button
			kind="word"
			size="small"
			className="field-end"
			aria-haspopup="dialog"
			aria-expanded={false}
			onClick={onPress}
		>
			pick<span className="sr-only"> the day: {label}</span>
		</Button>
	);
}
