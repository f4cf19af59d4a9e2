import {
	type FocusEvent,
	type KeyboardEvent,
	useEffect,
	useLayoutEffect,
	useRef,
	useState,
} from "react";
import { plusDays, weekStart } from "../../ui/days";
import { isGoing, isTyping } from "../Keys";
import { useTaskDone } from "../useTaskDone";
import { HowLong } from "./HowLong";
import { type Moved, useTaskDay } from "./useTaskDay";

const tasks = () => [...document.querySelectorAll<HTMLElement>("[data-task]")];

const taskOf = (element: HTMLElement): Moved => ({
	id: Number(element.dataset.task),
	project: Number(element.dataset.project),
	title: element.dataset.title ?? "",
});

/** The keys of a task that was walked to: arrows walk on, h and l move it, 1 to 7 put it on a day, x is done, e says how long. */
export function useTaskKeys() {
	const put = useTaskDay();
	const [asked, setAsked] = useState<Moved & { estimate: string }>();
	const [ticked, setTicked] = useState<Moved>();
	const { done } = useTaskDone(ticked?.project ?? 0);
	const held = useFocusHeld();
	// what was done before its day stands on the day it was done
	useEffect(() => {
		if (!ticked) return;
		setTicked(undefined);
		void done(ticked.id, ticked.title);
	}, [ticked]);

	async function move(element: HTMLElement, day: string | null) {
		const was = element.dataset.day || null;
		if (day !== was) await put(taskOf(element), was, day);
	}

	function listen(event: KeyboardEvent) {
		const element = (event.target as HTMLElement).closest<HTMLElement>(
			"[data-task]",
		);
		if (
			!element ||
			event.ctrlKey ||
			event.metaKey ||
			event.altKey ||
			isTyping(event.target) ||
			isGoing()
		)
			return;
		const act = acts(element)[event.key];
		if (!act) return;
		event.preventDefault();
		act();
	}

	const acts = (element: HTMLElement): Record<string, () => void> => {
		const monday = mondayShown();
		const day = element.dataset.day;
		const onDay = (at: number) => () =>
			move(element, monday ? plusDays(monday, at) : null);
		return {
			ArrowUp: () => walk(element, 0, -1),
			ArrowDown: () => walk(element, 0, 1),
			ArrowLeft: () => walk(element, -1, 0),
			ArrowRight: () => walk(element, 1, 0),
			h: () => day && move(element, plusDays(day, -1)),
			l: () => (day ? move(element, plusDays(day, 1)) : onDay(0)()),
			...Object.fromEntries(
				[0, 1, 2, 3, 4, 5, 6].map((at) => [`${at + 1}`, onDay(at)]),
			),
			"0": () => move(element, null),
			x: () => setTicked(taskOf(element)),
			e: () =>
				setAsked({
					...taskOf(element),
					estimate: element.dataset.estimate ?? "",
				}),
		};
	};
	return {
		on: { onKeyDown: listen, onFocus: held },
		window: asked && (
			<HowLong task={asked} onClose={() => setAsked(undefined)} />
		),
	};
}

/**
 * Keeps the focus with the task that has it: a task that moves is drawn anew in another place, however often and whenever the days come from the server, and what was drawn before it took the focus with it.
 * Where it left these days, what stood beside it has the focus.
 */
function useFocusHeld() {
	const held = useRef<{ task?: string; next?: string }>({});
	useLayoutEffect(() => {
		if (document.activeElement !== document.body) return;
		const { task, next } = held.current;
		const at = shown(task) ?? shown(next);
		at?.focus();
		at?.scrollIntoView({ block: "nearest" });
	});
	useEffect(() => {
		// a window over the page gives the focus back when it closes; anything else takes it
		const elsewhere = (event: Event) => {
			const at = event.target instanceof Element ? event.target : undefined;
			if (!at?.closest("[data-task], [role=dialog]")) held.current = {};
		};
		document.addEventListener("focusin", elsewhere);
		document.addEventListener("pointerdown", elsewhere);
		return () => {
			document.removeEventListener("focusin", elsewhere);
			document.removeEventListener("pointerdown", elsewhere);
		};
	}, []);
	return (event: FocusEvent<HTMLElement>) => {
		const { task } = event.target.dataset;
		if (task) held.current = { task, next: neighbour(event.target) };
	};
}

const shown = (task: string | undefined) =>
	document.querySelector<HTMLElement>(`[data-task="${task}"]`);

/** The Monday of the week on the screen. */
function mondayShown() {
	const first = document.querySelector<HTMLElement>("[data-monday]");
	return first?.dataset.monday && weekStart(first.dataset.monday);
}

/** What is next to a task, for when it goes. */
function neighbour(element: HTMLElement) {
	const all = tasks();
	const at = all.indexOf(element);
	return (all[at + 1] ?? all[at - 1])?.dataset.task;
}

/** To the task above or below in its column, or to the nearest of the next column that has any. */
function walk(from: HTMLElement, across: number, down: number) {
	const all = tasks();
	const column = Number(from.dataset.column);
	const of = (at: number) =>
		all.filter((one) => Number(one.dataset.column) === at);
	let next: HTMLElement | undefined;
	if (down) {
		const same = of(column);
		next = same[same.indexOf(from) + down];
	} else {
		const top = from.getBoundingClientRect().top;
		for (let at = column + across; at >= 0 && at <= 7 && !next; at += across)
			next = of(at).sort(
				(a, b) =>
					Math.abs(a.getBoundingClientRect().top - top) -
					Math.abs(b.getBoundingClientRect().top - top),
			)[0];
	}
	next?.focus();
	next?.scrollIntoView({ block: "nearest" });
}
