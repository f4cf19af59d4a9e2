import { lazy, Suspense, useEffect, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { Kbd } from "../ui/Kbd";
import { Window } from "../ui/Window";
import { PageGuide } from "./PageGuide";

const Find = lazy(() => import("./Find"));
const NewInquiry = lazy(() => import("./inquiry/NewInquiry"));

const all: [string, string][] = [
	["g then t", "go to Today"],
	["g then u", "go to Turns"],
	["g then r", "go to the Register"],
	["g then p", "go to People"],
	["g then s", "go to the Season"],
	["g then w", "go to the Week"],
	["g then m", "go to Money"],
	["g then e", "go to Templates"],
	["g then o", "go to Reports"],
	["/", "write a slip"],
	["i", "take down an inquiry"],
	["Ctrl K", "find a project, person, letter or file"],
	["j and k", "walk the projects or entries"],
	["Enter", "open what is walked to"],
	["a", "to the act that is next in a project"],
	["w", "what happened?"],
	["l", "write a letter"],
	["n", "write a note, a task or a call"],
	["q", "in an open letter or note: keep what is marked of it as praise"],
	["c", "in a project: start the clock for it, or stop it; in Money: a cost"],
	["arrows", "in the Week, from a task (j): walk to those around it"],
	["h and l", "in the Week: work on it a day earlier, a day later"],
	["1 to 7, 0", "in the Week: work on it on that day, on none"],
	["x", "in the Week: it is done"],
	["e", "in the Week: how long it takes"],
	["[ and ]", "the week before, the week after; in the Season, the month"],
	["z", "in a list: undo what the client changed last"],
	["s", "in a list: all that the client changed is seen"],
	["v", "hide names and amounts while others look, and show them again"],
	["Ctrl Enter", "send or keep what is being written"],
	["Esc", "leave the field, then close what is open"],
	["?", "all keys"],
];

/** Whether a key is meant for a field, or for a menu that is walked by first letters, and not for the page. */
export function isTyping(target: EventTarget | null): boolean {
	const element = target as HTMLElement | null;
	return Boolean(
		element?.closest(
			"input:not([type=checkbox], [type=radio]), textarea, select, [contenteditable], [role=dialog], [role=menu]",
		),
	);
}

/** When g was pressed, and by which key it was followed: that one means a place, whatever it does alone. */
let going = 0;
export const isGoing = () => Date.now() - going < 1500;

/** Listens for single keys while nothing is being typed. */
export function useKeys(keys: Record<string, () => void>, afterG = false) {
	const newest = useRef(keys);
	newest.current = keys;
	useEffect(() => {
		const listen = (event: KeyboardEvent) => {
			if (
				event.ctrlKey ||
				event.metaKey ||
				event.altKey ||
				event.defaultPrevented ||
				isTyping(event.target) ||
				afterG !== isGoing()
			)
				return;
			const act = newest.current[event.key];
			if (!act) return;
			event.preventDefault();
			act();
		};
		document.addEventListener("keydown", listen);
		return () => document.removeEventListener("keydown", listen);
	}, [afterG]);
}

/** Where was walked to last, and on which page. */
let last: { page: string; stop: HTMLElement; at: number } | undefined;

/** j and k walk everything marked with data-walk; Enter is the link's own. They go on where they were, also from a button beside it, and from the gap where something was sent or ticked off. */
function walk(step: 1 | -1) {
	const stops = [...document.querySelectorAll<HTMLElement>("[data-walk]")];
	if (stops.length === 0) return;
	const was = last?.page === location.pathname ? last : undefined;
	let at = stops.indexOf(document.activeElement as HTMLElement);
	if (at < 0 && was) at = stops.indexOf(was.stop);
	// in a gap, what came after it has its place now
	if (at < 0 && was) at = was.at - (step > 0 ? 1 : 0);
	const next =
		at < 0 && step < 0
			? stops.length - 1
			: (at + step + stops.length) % stops.length;
	const stop = stops[next];
	if (!stop) return;
	last = { page: location.pathname, stop, at: next };
	stop.focus();
	stops[next]?.scrollIntoView({ block: "nearest" });
}

/** Presses the one act of what is being written: the letter, the form or the window around the field; of a letter that is read or walked to, from anywhere in it. */
function sendOpen(event: KeyboardEvent) {
	const at = event.target as HTMLElement;
	const place = at.matches("input, textarea, select")
		? at.closest("[role=dialog], form, .panel")
		: at.closest("[data-sends]");
	const act = place?.querySelector<HTMLButtonElement>(".btn-go:not(:disabled)");
	if (!act) return;
	event.preventDefault();
	act.click();
}

/** Escape leaves a field first, so that what is typed in it is not closed over; a window closes itself. */
function leaveField(event: KeyboardEvent) {
	const field = event.target as HTMLElement;
	if (isTyping(field) && !field.closest("[role=dialog]")) field.blur();
}

/** The keys that work everywhere. */
export function Keys() {
	const navigate = useNavigate();
	const [help, setHelp] = useState(false);
	const [finding, setFinding] = useState(false);
	const [inquiry, setInquiry] = useState<number>();
	useEffect(() => {
		const show = () => setHelp(true);
		document.addEventListener("gesamt:keys", show);
		return () => document.removeEventListener("gesamt:keys", show);
	}, []);
	const go = (path: string) => () => {
		going = 0;
		navigate(path);
	};
	useKeys(
		{
			t: go("/today"),
			u: go("/turns"),
			r: go("/register"),
			s: go("/season"),
			w: go("/week"),
			p: go("/people"),
			m: go("/money"),
			e: go("/templates"),
			o: go("/reports"),
		},
		true,
	);
	useKeys({
		g: () => {
			going = Date.now();
		},
		i: () => setInquiry(0),
		j: () => walk(1),
		k: () => walk(-1),
		"?": () => setHelp(true),
	});
	useEffect(() => {
		const find = () => setFinding(true);
		const listen = (event: KeyboardEvent) => {
			if (event.key === "Escape") return leaveField(event);
			if (!(event.ctrlKey || event.metaKey)) return;
			if (event.key === "Enter") return sendOpen(event);
			if (event.key !== "k") return;
			event.preventDefault();
			find();
		};
		document.addEventListener("keydown", listen);
		const inquire = (event: Event) => setInquiry((event as CustomEvent).detail);
		document.addEventListener("gesamt:find", find);
		document.addEventListener("gesamt:inquiry", inquire);
		return () => {
			document.removeEventListener("gesamt:inquiry", inquire);
			document.removeEventListener("keydown", listen);
			document.removeEventListener("gesamt:find", find);
		};
	}, []);
	if (inquiry !== undefined)
		return (
			<Suspense>
				<NewInquiry letter={inquiry} onClose={() => setInquiry(undefined)} />
			</Suspense>
		);
	if (finding)
		return (
			<Suspense>
				<Find onClose={() => setFinding(false)} />
			</Suspense>
		);
	return (
		<Window
			title="This page, and all keys"
			open={help}
			onClose={() => setHelp(false)}
		>
			<PageGuide />
			<dl className="grid grid-cols-[90px_1fr] gap-y-2">
				{all.map(([key, does]) => (
					<div key={key} className="contents">
						<dt>
							<Kbd>{key}</Kbd>
						</dt>
						<dd>{does}</dd>
					</div>
				))}
			</dl>
		</Window>
	);
}
