import type { ComponentProps } from "react";
import { type About, Labelled } from "./Labelled";

/** Text of several lines. */
export function TextArea({
	label,
	hint,
	wrong,
	hidden,
	className = "",
	...input
}: About & Omit<ComponentProps<"textarea">, "hidden">) {
	return (
		<Labelled label={label} hint={hint} wrong={wrong} hidden={hidden}>
			{(tied) => (
				<textarea className={`field ${className}`} {...input} {...tied} />
			)}
		</Labelled>
	);
}
