import { type KeyboardEvent, useEffect, useRef, useState } from "react";
import type { TypedDto } from "../api/schema";

/**
 * What is typed into a field, read by the studio's own rule while it is typed.
 * The screen is handed the value as the API takes it, or the bare text until it
 * reads: what does not read is refused with its field, never dropped.
 */
export function useTyped(
	read: (text: string) => Promise<TypedDto>,
	value: string,
	show: (value: string) => string,
	onChange: (value: string) => void,
) {
	const [draft, setDraft] = useState<string>();
	const [reading, setReading] = useState<TypedDto>();
	const [left, setLeft] = useState(true);
	const [busy, setBusy] = useState(false);
	const sent = useRef(value);
	const asked = useRef(0);
	const waiting = useRef<HTMLFormElement>(null);
	// the answer comes later, when other fields of the screen may have changed
	const latest = useRef(onChange);
	useEffect(() => {
		latest.current = onChange;
	});

	// set from elsewhere, such as emptied after it was kept
	useEffect(() => {
		if (value === sent.current) return;
		sent.current = value;
		asked.current++;
		setBusy(false);
		setDraft(undefined);
		setReading(undefined);
	}, [value]);

	function hand(next: string) {
		sent.current = next;
		latest.current(next);
	}

	async function type(text: string) {
		const turn = ++asked.current;
		setDraft(text);
		setLeft(false);
		hand(text.trim());
		if (!text.trim()) {
			setBusy(false);
			return setReading(undefined);
		}
		setBusy(true);
		try {
			const understood = await read(text);
			if (turn !== asked.current) return;
			setReading(understood);
			if (understood.value !== null) hand(understood.value);
		} catch {
			// the server reads it once more when it is kept
		}
		if (turn !== asked.current) return;
		setBusy(false);
		const form = waiting.current;
		waiting.current = null;
		// after the screen has taken the value
		if (form) setTimeout(() => form.requestSubmit());
	}

	const settled = left && !busy && typeof reading?.value === "string";
	const unread = reading !== undefined && reading.value === null;
	return {
		text: draft === undefined || settled ? show(value) : draft,
		/** Said under the field: how it was read, or what would be. */
		words: reading?.words,
		/** It was left as something that does not read. */
		wrong: left && unread ? reading.words : undefined,
		/** It is being read. */
		busy,
		type,
		/** Takes a value that was picked, not typed. */
		pick(next: string) {
			asked.current++;
			setBusy(false);
			setDraft(undefined);
			setReading(undefined);
			hand(next);
		},
		leave: () => setLeft(true),
		/** Enter right behind the last letter waits for the reading. */
		enter(event: KeyboardEvent<HTMLInputElement>) {
			if (event.key !== "Enter" || !busy || !event.currentTarget.form) return;
			event.preventDefault();
			waiting.current = event.currentTarget.form;
		},
	};
}
