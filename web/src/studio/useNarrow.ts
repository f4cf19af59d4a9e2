import { useSyncExternalStore } from "react";

const narrow = window.matchMedia("screen and (max-width: 767px)");

/** Whether the page is as narrow as a phone, and another layout than the wide one’s is drawn; what is printed has the wide one. */
export const useNarrow = () =>
	useSyncExternalStore(
		(changed) => {
			narrow.addEventListener("change", changed);
			return () => narrow.removeEventListener("change", changed);
		},
		() => narrow.matches,
	);
