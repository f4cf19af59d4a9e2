import type { ReactNode } from "react";

/** One thing a kind brings along, folded until it is worked on. */
export function Section({
	title,
	under,
	open,
	children,
}: {
	title: string;
	under: string;
	open?: boolean;
	children: ReactNode;
}) {
	return (
		<details open={open} className="panel px-4 py-2.5">
			<summary className="flex items-baseline gap-2">
				<h3>{title}</h3>
				<span className="text-[14px] text-soft">{under}</span>
			</summary>
			<div className="pt-3">{children}</div>
		</details>
	);
}
