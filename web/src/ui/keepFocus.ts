/**
 * Keeps the focus where somebody works. What had it may go as it is sent or ticked off; the browser then lets go of it,
 * and whoever works by keys, or hears the page, would begin again at its top. It goes to what took the place instead:
 * never into a field, which would open the keyboard of a phone, nor to a button, which a second press would act on.
 */
export function keepFocus() {
	let last: HTMLElement | undefined;
	let near: Element[] = [];
	let soon = 0;
	document.addEventListener("focusin", ({ target }) => {
		if (target instanceof HTMLElement) last = target;
		near = [];
	});
	document.addEventListener("focusout", ({ target, relatedTarget }) => {
		// somebody left it, or pressed beside it: that is meant. What is taken away is said to lose it while it is still there
		if (!relatedTarget)
			queueMicrotask(() => {
				if (target === last && canTake(last)) last = undefined;
			});
	});
	new MutationObserver((records) => {
		const went = records.find(({ removedNodes }) =>
			[...removedNodes].some((node) => node.contains(last ?? null)),
		);
		if (went) near = around(went);
		if (!last || document.activeElement !== document.body) return;
		clearTimeout(soon);
		// a window or a menu that closes gives it back by itself, a moment later
		soon = window.setTimeout(settle, 50);
	}).observe(document.body, {
		childList: true,
		subtree: true,
		// a button rests while its act is under way
		attributes: true,
		attributeFilter: ["disabled"],
	});

	function settle() {
		if (!last || document.activeElement !== document.body) return;
		if (canTake(last)) return last.focus({ preventScroll: true });
		if (last.isConnected) return;
		const place = near.find(isPlace) ?? document.querySelector("main");
		if (place) enter(place);
	}
}

const canTake = (element: HTMLElement | undefined) =>
	element?.isConnected && !element.matches(":disabled");

/** What stands after, before and around that which went. */
function around({ nextSibling, previousSibling, target }: MutationRecord) {
	const found: Element[] = [];
	for (let node = nextSibling; node; node = node.nextSibling)
		if (node instanceof Element) found.push(node);
	for (let node = previousSibling; node; node = node.previousSibling)
		if (node instanceof Element) found.push(node);
	for (let node: Node | null = target; node; node = node.parentNode)
		if (node instanceof Element) found.push(node);
	return found;
}

const isPlace = (element: Element) =>
	element.isConnected &&
	element.getClientRects().length > 0 &&
	element.closest("main, [role=dialog]") !== null &&
	!element.matches("button, input, select, textarea, label");

function enter(place: Element) {
	const stop = place.matches("[data-walk]")
		? place
		: (place.querySelector("[data-walk]") ?? place);
	if (!(stop instanceof HTMLElement)) return;
	if (stop.tabIndex < 0) stop.tabIndex = -1;
	stop.focus({ preventScroll: true });
}
