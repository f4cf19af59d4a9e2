import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import type { Refusal } from "../api/refusal";
import { useUndo } from "../ui/Undo";
import { changedAll } from "./live";

/** Runs a write, fetches what it changed, and keeps what was refused to be shown. What is refused when its place has left the screen, as where an undo comes too late, is told at its lower edge. */
export function useAct() {
	const queries = useQueryClient();
	const [refusal, setRefusal] = useState<Refusal>();
	const [busy, setBusy] = useState(false);
	const tell = useUndo();
	const isHere = useRef(false);
	useEffect(() => {
		isHere.current = true;
		return () => {
			isHere.current = false;
		};
	}, []);
	const run = useCallback(
		async (write: () => Promise<unknown>): Promise<boolean> => {
			setBusy(true);
			setRefusal(undefined);
			try {
				await write();
				await changedAll(queries);
				return true;
			} catch (error) {
				setRefusal(error as Refusal);
				if (!isHere.current)
					tell({ words: (error as Refusal).message, stays: true });
				return false;
			} finally {
				setBusy(false);
			}
		},
		[queries, tell],
	);
	return { run, refusal, busy };
}
