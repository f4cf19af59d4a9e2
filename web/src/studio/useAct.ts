import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import type { Refusal } from "../api/refusal";
import { useUndo } from "../ui/Undo";
import { changedAll } from "./live";

const mostWait = 5_000;

const pause = (milliseconds: number) =>
	new Promise((resolve) => setTimeout(resolve, milliseconds));

/**
 * Runs a write, fetches what it changed, and keeps what was refused.
 *
 * Who runs it shows what was refused in its place; a button without a place for words has it told at the lower edge of the screen. So is told what is refused when its place has left the screen, as where an undo comes too late.
 */
export function useAct(told: "here" | "below" = "here") {
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
				// what was written is written: nobody waits for long to see what it changed
				await Promise.race([changedAll(queries), pause(mostWait)]);
				return true;
			} catch (error) {
				setRefusal(error as Refusal);
				if (told === "below" || !isHere.current)
					tell({ words: (error as Refusal).message, stays: true });
				return false;
			} finally {
				setBusy(false);
			}
		},
		[queries, tell, told],
	);
	return { run, refusal, busy };
}
