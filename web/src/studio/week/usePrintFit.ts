import { useEffect, useRef } from "react";

/** A4 across (ISO 216), in CSS pixels, less margins of 10 mm and a line for the heading; and a tenth less, because what is printed breaks some lines earlier than the screen. */
const page = { width: 1047, height: 570 };

/** Makes what it is given fit one printed page: as wide as the page, and smaller where it is too tall. */
export function usePrintFit() {
	const sheet = useRef<HTMLDivElement>(null);
	useEffect(() => {
		const fit = () => {
			const it = sheet.current;
			if (!it) return;
			// a smaller zoom makes it wider on the page, and so shorter: found in a few steps
			let zoom = 1;
			for (let step = 0; step < 6; step++) {
				it.style.width = `${page.width / zoom}px`;
				it.style.zoom = `${zoom}`;
				const tall = it.getBoundingClientRect().height;
				if (tall <= page.height) break;
				zoom *= Math.max(0.5, Math.sqrt(page.height / tall) * 0.98);
			}
		};
		const unfit = () => {
			if (sheet.current) sheet.current.removeAttribute("style");
		};
		window.addEventListener("beforeprint", fit);
		window.addEventListener("afterprint", unfit);
		return () => {
			window.removeEventListener("beforeprint", fit);
			window.removeEventListener("afterprint", unfit);
		};
	}, []);
	return sheet;
}
