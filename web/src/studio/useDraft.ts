import { useEffect, useRef, useState } from "react";
import type { Refusal } from "../api/refusal";

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

	useEffect(() => {
		if (saved.current === value) return;
		setState("keeping");
		async function keep() {
			// what was typed since is kept by the save behind this one
			if (latest.current.value !== value) return;
			try {
				const kept = await latest.current.save(edition.current, value);
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
		}
		const timer = setTimeout(() => {
			// one after the other: a save that is still on its way would make the next one stale
			queue.current = queue.current.then(keep);
		}, 400);
		return () => clearTimeout(timer);
	}, [value]);

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
