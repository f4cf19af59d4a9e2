import { type ComponentProps, type ReactNode, useId } from "react";

type Shared = {
	label: string;
	hint?: string | null;
	wrong?: string;
	hidden?: boolean;
};

/** A label, its field, its hint, and what is wrong with it, all tied together. */
function Labelled({
	label,
	hint,
	wrong,
	hidden,
	children,
}: Shared & {
	children: (props: {
		id: string;
		"aria-invalid": boolean;
		"aria-describedby": string | undefined;
	}) => ReactNode;
}) {
	const id = useId();
	return (
		<div>
			<label className={hidden ? "sr-only" : "label"} htmlFor={id}>
				{label}
			</label>
			{children({
				id,
				"aria-invalid": Boolean(wrong),
				"aria-describedby": wrong || hint ? `${id}-about` : undefined,
			})}
			{(wrong || hint) && (
				<div id={`${id}-about`} className={wrong ? "wrong" : "under pt-0.5"}>
					{wrong ?? hint}
				</div>
			)}
		</div>
	);
}

export function TextField({
	label,
	hint,
	wrong,
	hidden,
	className = "",
	...input
}: Shared & ComponentProps<"input">) {
	return (
		<Labelled label={label} hint={hint} wrong={wrong} hidden={hidden}>
			{(tied) => (
				<input className={`field ${className}`} {...input} {...tied} />
			)}
		</Labelled>
	);
}

export function TextArea({
	label,
	hint,
	wrong,
	hidden,
	className = "",
	...input
}: Shared & ComponentProps<"textarea">) {
	return (
		<Labelled label={label} hint={hint} wrong={wrong} hidden={hidden}>
			{(tied) => (
				<textarea className={`field ${className}`} {...input} {...tied} />
			)}
		</Labelled>
	);
}

export function Select({
	label,
	hint,
	wrong,
	hidden,
	children,
	...input
}: Shared & ComponentProps<"select">) {
	return (
		<Labelled label={label} hint={hint} wrong={wrong} hidden={hidden}>
			{(tied) => (
				<select className="field" {...input} {...tied}>
					{children}
				</select>
			)}
		</Labelled>
	);
}

/** What went wrong, read out as it appears. */
export function Alert({ children }: { children: ReactNode }) {
	return (
		<div
			role="alert"
			className="border-l-4 border-ink bg-sheet px-3 py-2 font-semibold"
		>
			{children}
		</div>
	);
}
