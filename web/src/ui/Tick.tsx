import type { ReactNode } from "react";

/** Yes or no. The words are its label; where the place says them already they are read out alone. */
export function Tick({
	label,
	hidden,
	under,
	wrong,
	checked,
	disabled,
	className = "",
	onChange,
}: {
	label: ReactNode;
	hidden?: boolean;
	under?: ReactNode;
	wrong?: string;
	checked: boolean;
	disabled?: boolean;
	className?: string;
	onChange: (checked: boolean) => void;
}) {
	return (
		<label className={`flex items-start gap-2.5 max-md:min-h-6 ${className}`}>
			<input
				type="checkbox"
				className="tick"
				checked={checked}
				disabled={disabled}
				aria-invalid={wrong ? true : undefined}
				onChange={(e) => onChange(e.target.checked)}
			/>
			<span className={hidden ? "sr-only" : "min-w-0 flex-1"}>
				{label}
				{under && <span className="under block">{under}</span>}
				{wrong && <span className="wrong block">{wrong}</span>}
			</span>
		</label>
	);
}
