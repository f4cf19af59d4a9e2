/** A field no person sees: what fills it in is no person. */
export function Honeypot({ name }: { name: string }) {
	return (
		<div className="absolute -left-[9999px]" aria-hidden="true">
			<input name={name} tabIndex={-1} autoComplete="off" />
		</div>
	);
}
