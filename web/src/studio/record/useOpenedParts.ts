import { useState } from "react";

/** Which parts of a project's sheet were opened or folded by hand; kept in this browser, so that they are found as they were left. */
export function useOpenedParts(project: number) {
	const key = `sheet:${project}`;
	const [chosen, setChosen] = useState<Record<string, boolean>>(() =>
		read(key),
	);
	return {
		/** Whether a part is open; the present gate decides where nobody has. */
		isOpen: (part: string, usual: boolean) => chosen[part] ?? usual,
		set(part: string, open: boolean) {
			const next = { ...chosen, [part]: open };
			setChosen(next);
			try {
				localStorage.setItem(key, JSON.stringify(next));
			} catch {
				// a browser that keeps nothing shows the sheet as the gate has it
			}
		},
	};
}

function read(key: string): Record<string, boolean> {
	try {
		return JSON.parse(localStorage.getItem(key) ?? "{}");
	} catch {
		return {};
	}
}
