import { type ReactNode, useEffect, useRef } from "react";
import { useLocation } from "react-router";
import { Fold } from "../../ui/Fold";

/** One thing a kind brings along, folded until it is worked on, or until an address points at it. */
export function Section({
	id,
	title,
	under,
	open,
	children,
}: {
	/** What an address names it by, behind its #. */
	id?: string;
	title: string;
	under: string;
	open?: boolean;
	children: ReactNode;
}) {
	const { hash } = useLocation();
	const meant = Boolean(id) && hash === `#${id}`;
	const place = useRef<HTMLDivElement>(null);
	useEffect(() => {
		if (!meant) return;
		place.current?.scrollIntoView({ block: "start" });
		place.current?.querySelector("button")?.focus({ preventScroll: true });
	}, [meant]);
	return (
		<div ref={place}>
			<Fold
				key={String(meant)}
				begin={open || meant}
				className="panel px-4 py-2.5"
				heading={{ level: 3, title }}
				line={<span className="min-w-0 text-[14px] text-soft">{under}</span>}
			>
				<div className="pt-3">{children}</div>
			</Fold>
		</div>
	);
}
