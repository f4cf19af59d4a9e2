/** Opens the window from anywhere, with a letter of the tray if there is one. */
export const beginInquiry = (letter?: number) =>
	document.dispatchEvent(
		new CustomEvent("gesamt:inquiry", { detail: letter ?? 0 }),
	);
