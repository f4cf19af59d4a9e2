import { useCallback, useEffect, useRef, useState } from "react";
import type { Refusal } from "../api/refusal";

/** Milliseconds without a change after which it is kept. */
const rest = 400;

/** Keeps what is written a moment after the last change; a stale save keeps this text and says so. */
export function useDraft<Draft extends { edition: number }, Written>(
	first: Draft,
	/** What of a draft is written here. */
	written: (draft: Draft) => Written,
	save: (edition: number, value: Written) => Promise<Draft>,
) {
	const [draft, setDraft] = useState(first);
	const [value, setValue] = useState(() => written(first));
	const [state, setState] = useState<"kept" | "keeping" | "not kept yet">(
		"kept",
	);
	const [refusal, setRefusal] = useState<Refusal>();
	const edition = useRef(first.edition);
	const saved = useRef(value);
	const latest = useRef({ save, value });
	latest.current = { save, value };
	const queue = useRef(Promise.resolve());

	// one after the other: a save that is still on its way would make the next one stale
	const keep = useCallback(() => {
		queue.current = queue.current.then(async () => {
			const { save, value } = latest.current;
			if (saved.current === value) return;
			try {
				const kept = await save(edition.current, value);
				edition.current = kept.edition;
				saved.current = value;
				setDraft(kept);
				setRefusal(undefined);
				if (latest.current.value === value) setState("kept");
			} catch (error) {
				const refused = error as Refusal;
				// written in another window: the next save is meant to replace it
				const theirs = refused.theirs as Draft | undefined;
				if (theirs) edition.current = theirs.edition;
				setRefusal(refused);
				setState("not kept yet");
			}
		});
	}, []);

	useEffect(() => {
		if (saved.current === value) return;
		setState("keeping");
		const timer = setTimeout(keep, rest);
		return () => clearTimeout(timer);
	}, [value, keep]);
	// whoever goes elsewhere at once takes nothing typed along
	useEffect(() => keep, [keep]);

	/** What the server wrote anew. */
	function take(begun: Draft) {
		edition.current = begun.edition;
		saved.current = written(begun);
		setDraft(begun);
		setValue(saved.current);
		setState("kept");
		setRefusal(undefined);
	}

	return { take, draft, value, change: setValue, state, refusal };
}
