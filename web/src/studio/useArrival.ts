import { useEffect, useRef } from "react";
import { useLocation } from "react-router";

/** Whoever comes to another page is in it with the next key, and need not pass the bar; unless the page has put the focus somewhere itself. */
export function useArrival() {
	const page = useRef<HTMLDivElement>(null);
	const { pathname } = useLocation();
	const before = useRef(pathname);
	useEffect(() => {
		if (before.current === pathname) return;
		before.current = pathname;
		const at = document.activeElement;
		if (!page.current?.contains(at) && !at?.closest("[role=dialog]"))
			page.current?.focus({ preventScroll: true });
	}, [pathname]);
	return page;
}
