import { useLayoutEffect, useRef, useState } from "react";

/** How wide its place is, in pixels. */
export function useWidth(first: number) {
	const place = useRef<HTMLDivElement>(null);
	const [width, setWidth] = useState(first);
	useLayoutEffect(() => {
		const element = place.current;
		if (!element) return;
		const watch = new ResizeObserver(() => setWidth(element.clientWidth));
		setWidth(element.clientWidth);
		watch.observe(element);
		return () => watch.disconnect();
	}, []);
	return { place, width };
}
