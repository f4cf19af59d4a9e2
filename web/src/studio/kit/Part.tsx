import type { ReactNode } from "react";

/** One part of the kit under its name, in each of its states. */
export function Part({
	name,
	children,
}: {
	name: string;
	children: ReactNode;
}) {
	return (
		<section aria-label={name} className="border-t border-hair py-4">
			<h2 className="pb-2">{name}</h2>
			<div className="flex flex-wrap items-start gap-x-6 gap-y-4">
				{children}
			</div>
		</section>
	);
}
