import type { DayLoadDto } from "../../api/schema";

/** How much of a day is planned: inked as far as it is, hatched beyond its end where it holds too much. The words beside it say the same. */
export function LoadBar({ load }: { load: DayLoadDto }) {
	if (!load.words) return null;
	return (
		<div
			aria-hidden
			className="relative mt-1.5 h-2 border border-ink print:[print-color-adjust:exact]"
		>
			<div
				className="absolute inset-y-0 left-0 bg-ink"
				style={{ width: `${load.share}%` }}
			/>
			{load.over && (
				<div className="hatched absolute -inset-y-1 -right-px w-[16%] border border-ink" />
			)}
		</div>
	);
}
