import type { ComponentProps } from "react";
import { type About, Labelled } from "./Labelled";

/** One line of text; also a mail address, a password, a number, by its type. */
export function TextField({
	label,
	hint,
	wrong,
	hidden,
	className = "",
	...input
}: About &
	Omit<ComponentProps<"input">, "hidden"> & {
		type?: "text" | "email" | "password" | "search" | "tel" | "url" | "number";
	}) {
	return (
		<Labelled label={label} hint={hint} wrong={wrong} hidden={hidden}>
			{(tied) => (
				<input className={`field ${className}`} {...input} {...tied} />
			)}
		</Labelled>
	);
}
