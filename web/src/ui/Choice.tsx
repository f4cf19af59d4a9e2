import { createContext, type ReactNode, useContext, useId } from "react";

const Group = createContext<{
	name: string;
	value: string | undefined;
	onChange: (value: string) => void;
}>({ name: "", value: undefined, onChange: () => undefined });

/** One of several, all of them in sight. */
export function Choices({
	label,
	hidden,
	wrong,
	value,
	className = "grid gap-1",
	onChange,
	children,
}: {
	label: ReactNode;
	hidden?: boolean;
	wrong?: string;
	value: string | undefined;
	className?: string;
	onChange: (value: string) => void;
	children: ReactNode;
}) {
	const name = useId();
	return (
		<fieldset className="min-w-0">
			<legend className={hidden ? "sr-only" : "label"}>{label}</legend>
			<Group.Provider value={{ name, value, onChange }}>
				<div className={className}>{children}</div>
			</Group.Provider>
			{wrong && <p className="wrong">{wrong}</p>}
		</fieldset>
	);
}

/** One of the choices. As a chip it is a small box of its own, such as a time to pick. */
export function Choice({
	value,
	under,
	chip,
	name,
	className = "",
	children,
}: {
	value: string;
	/** Read out instead of the words, where they alone say too little. */
	name?: string;
	under?: ReactNode;
	chip?: boolean;
	className?: string;
	children: ReactNode;
}) {
	const group = useContext(Group);
	const chosen = group.value === value;
	const input = (
		<input
			type="radio"
			className={chip ? "absolute inset-0 cursor-pointer opacity-0" : "choice"}
			name={group.name}
			aria-label={name}
			checked={chosen}
			onChange={() => group.onChange(value)}
		/>
	);
	if (chip)
		return (
			// biome-ignore lint/a11y/noLabelWithoutControl: its control is the input above
			<label
				className={`btn num relative has-focus-visible:outline-2 ${chosen ? "chip-on" : ""} ${className}`}
			>
				{input}
				{children}
			</label>
		);
	return (
		// biome-ignore lint/a11y/noLabelWithoutControl: its control is the input above
		<label className={`flex items-start gap-2.5 ${className}`}>
			{input}
			<span className="min-w-0 flex-1">
				{children}
				{under && <span className="under block">{under}</span>}
			</span>
		</label>
	);
}
