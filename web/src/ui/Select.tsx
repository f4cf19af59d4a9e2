import type { ComponentProps } from "react";
import { type About, Labelled } from "./Labelled";

/** One of several, out of a list; the device's own list, which a phone shows best. */
export function Select({
	label,
	hint,
	wrong,
	hidden,
	bare,
	children,
	...input
}: About &
	Omit<ComponentProps<"select">, "hidden" | "className"> & {
		/** Without a frame, at the end of a line. */
		bare?: boolean;
	}) {
	return (
		<Labelled label={label} hint={hint} wrong={wrong} hidden={hidden}>
			{(tied) => (
				<select
					className={
						bare
							? "border-0 bg-transparent text-right text-small text-ink"
							: "field"
					}
					{...input}
					{...tied}
				>
					{children}
				</select>
			)}
		</Labelled>
	);
}
