import { useEffect, useRef } from "react";

/** Moves the focus into a place when something opens there, and back to where it came from after; to the entry that was read, where it came from another page. */
export function useFocusInto(shown: string | null) {
	const place = useRef<HTMLElement>(null);
	const from = useRef<Element>(null);
	const was = useRef<string>(null);
	useEffect(() => {
		const here = document.activeElement;
		if (shown) {
			// a field of what opens may have taken it by itself
			if (!place.current?.contains(here)) place.current?.focus();
		} else if (
			was.current &&
			(here === document.body || place.current?.contains(here))
		)
			backTo(from.current, was.current);
		was.current = shown;
	}, [shown]);
	return {
		place,
		/** To be said before something opens: where the focus is now. */
		leave: () => {
			if (!was.current) from.current = document.activeElement;
		},
	};
}

function backTo(from: Element | null, shown: string) {
	const entry = document.querySelector(`[data-opens="${CSS.escape(shown)}"]`);
	const to = from?.isConnected && from !== document.body ? from : entry;
	if (to instanceof HTMLElement) to.focus();
}
