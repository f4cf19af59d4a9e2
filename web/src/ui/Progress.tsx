/** How far something has come that takes its time, in a hundred parts; undefined while that is not known. */
export function Progress({
	label,
	percent,
}: {
	label: string;
	percent: number | undefined;
}) {
	return (
		<progress
			className="progress"
			aria-label={label}
			max={100}
			value={percent}
		/>
	);
}
