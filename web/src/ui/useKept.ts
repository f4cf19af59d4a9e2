import { useCallback, useEffect, useState } from "react";

/** A draft that survives a reload or a closed pane, until it is forgotten because it was sent. */
export function useKept<T>(
	key: string,
	initial: T,
): [T, (next: T) => void, () => void] {
	const [draft, setDraft] = useState<T>(() => {
		const kept = localStorage.getItem(key);
		return kept === null ? initial : (JSON.parse(kept) as T);
	});
	const [touched, setTouched] = useState(false);
	useEffect(() => {
		if (touched) localStorage.setItem(key, JSON.stringify(draft));
	}, [key, draft, touched]);
	const change = useCallback((next: T) => {
		setTouched(true);
		setDraft(next);
	}, []);
	const forget = useCallback(() => {
		setTouched(false);
		localStorage.removeItem(key);
	}, [key]);
	return [draft, change, forget];
}
