import { useId } from "react";

/** Text written where it is read: a frame shows only where one points at it or writes. */
export function InPlace({
	label,
	value,
	className = "",
	placeholder,
	single,
	wrong,
	onChange,
}: {
	label: string;
	value: string;
	/** How it is read. */
	className?: string;
	placeholder?: string;
	/** One line: Enter makes none. */
	single?: boolean;
	wrong?: string;
	onChange: (value: string) => void;
}) {
	const told = useId();
	return (
		<>
			<textarea
				aria-label={label}
				className={`in-place ${className}`}
				rows={Math.max(1, value.split("\n").length)}
				placeholder={placeholder}
				value={value}
				aria-invalid={wrong ? true : undefined}
				aria-describedby={wrong ? told : undefined}
				onKeyDown={(event) => {
					if (single && event.key === "Enter") event.preventDefault();
				}}
				onChange={(event) =>
					onChange(
						single
							? event.target.value.replace(/\s*\n\s*/g, " ")
							: event.target.value,
					)
				}
			/>
			{wrong && (
				<p id={told} className="wrong">
					{wrong}
				</p>
			)}
		</>
	);
}
