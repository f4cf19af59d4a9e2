import { useEffect } from "react";
import { post } from "../ui/http";

/** Tells once that the page was in view for two seconds; a hint for the owner, never a reproach. */
export function useOpened(base: string) {
	useEffect(() => {
		let timer: ReturnType<typeof setTimeout> | undefined;
		const watch = () => {
			clearTimeout(timer);
			if (document.visibilityState === "visible")
				timer = setTimeout(() => {
					document.removeEventListener("visibilitychange", watch);
					post(`${base}/opened`).catch(() => undefined);
				}, 2000);
		};
		watch();
		document.addEventListener("visibilitychange", watch);
		return () => {
			clearTimeout(timer);
			document.removeEventListener("visibilitychange", watch);
		};
	}, [base]);
}
