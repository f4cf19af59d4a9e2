import { type KeyboardEvent, useEffect, useRef, useState } from "react";
import { Button } from "./Button";
import {
	dayName,
	monthName,
	monthOf,
	plusDays,
	plusMonths,
	weekStart,
	weeksOf,
} from "./days";

/** The days of one month, walked by the arrow keys, by week with Home and End, by month with Page Up and Down (WAI-ARIA grid). */
export function Month({
	day,
	today,
	quiet = false,
	onPick,
}: {
	day?: string;
	today: string;
	/** Does not take the focus as it appears. */
	quiet?: boolean;
	onPick: (day: string) => void;
}) {
	const [at, setAt] = useState(day ?? today);
	const [walked, setWalked] = useState(!quiet);
	const here = useRef<HTMLButtonElement>(null);
	useEffect(() => {
		if (walked) here.current?.focus();
	}, [at, walked]);
	const turn = (months: number) => {
		setWalked(false);
		setAt(plusMonths(at, months));
	};
	function walk(event: KeyboardEvent) {
		const to = step(event.key, at);
		if (!to) return;
		event.preventDefault();
		setWalked(true);
		setAt(to);
	}
	return (
		<div>
			<div className="flex items-baseline gap-3 pb-2">
				<b aria-live="polite" className="font-head">
					{monthName(at)}
				</b>
				<Button
					kind="word"
					size="small"
					className="ml-auto"
					onClick={() => turn(-1)}
				>
					before
					<span className="sr-only">: {monthName(plusMonths(at, -1))}</span>
				</Button>
				<Button kind="word" size="small" onClick={() => turn(1)}>
					after<span className="sr-only">: {monthName(plusMonths(at, 1))}</span>
				</Button>
			</div>
			<table
				// biome-ignore lint/a11y/noNoninteractiveElementToInteractiveRole: the grid of the WAI-ARIA date picker
				role="grid"
				className="num w-full table-fixed text-[13.5px]"
				aria-label={monthName(at)}
				onKeyDown={walk}
			>
				<thead>
					<tr>
						{["Mo", "Tu", "We", "Th", "Fr", "Sa", "Su"].map((name) => (
							<th
								key={name}
								scope="col"
								className="pb-1 text-[12px] font-semibold text-soft"
							>
								{name}
							</th>
						))}
					</tr>
				</thead>
				<tbody>
					{weeksOf(at).map((week) => (
						<tr key={week[0]}>
							{week.map((one) => (
								<td key={one} className="p-0 text-center">
									<button
										ref={one === at ? here : undefined}
										type="button"
										tabIndex={one === at ? 0 : -1}
										aria-label={dayName(one)}
										aria-pressed={one === day}
										aria-current={one === today ? "date" : undefined}
										className={`day ${monthOf(one) === monthOf(at) ? "" : "text-soft"}`}
										onClick={() => onPick(one)}
									>
										{Number(one.slice(8))}
									</button>
								</td>
							))}
						</tr>
					))}
				</tbody>
			</table>
		</div>
	);
}

function step(key: string, at: string): string | undefined {
	switch (key) {
		case "ArrowLeft":
			return plusDays(at, -1);
		case "ArrowRight":
			return plusDays(at, 1);
		case "ArrowUp":
			return plusDays(at, -7);
		case "ArrowDown":
			return plusDays(at, 7);
		case "Home":
			return weekStart(at);
		case "End":
			return plusDays(weekStart(at), 6);
		case "PageUp":
			return plusMonths(at, -1);
		case "PageDown":
			return plusMonths(at, 1);
		default:
			return undefined;
	}
}
