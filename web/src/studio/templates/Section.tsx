import type { ReactNode } from "react";
import { Fold } from "../../ui/Fold";

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
		<Fold
			begin={open}
			className="panel px-4 py-2.5"
			line={
				<>
					<h3>{title}</h3>
					<span className="min-w-0 text-[14px] text-soft">{under}</span>
				</>
			}
		>
			<div className="pt-3">{children}</div>
		</Fold>
	);
}
