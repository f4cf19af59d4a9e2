import { useEffect } from "react";
import { answer, api } from "../api/client";

/** Tells once that the page was in view for two seconds; a hint for the owner, never a reproach. */
export function useOpened(link: string) {
	useEffect(() => {
		let timer: ReturnType<typeof setTimeout> | undefined;
		const watch = () => {
			clearTimeout(timer);
			if (document.visibilityState === "visible")
				timer = setTimeout(() => {
					document.removeEventListener("visibilitychange", watch);
					answer(
						api.POST("/p/{link}/api/opened", { params: { path: { link } } }),
					).catch(() => undefined);
				}, 2000);
		};
		watch();
		document.addEventListener("visibilitychange", watch);
		return () => {
			clearTimeout(timer);
			document.removeEventListener("visibilitychange", watch);
		};
	}, [link]);
}
