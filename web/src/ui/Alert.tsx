import type { ReactNode } from "react";

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
