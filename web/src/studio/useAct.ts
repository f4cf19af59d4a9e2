import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useState } from "react";
import type { Refusal } from "../api/refusal";
import { changedAll } from "./live";

/** Runs a write, fetches what it changed, and keeps what was refused to be shown. */
export function useAct() {
	const queries = useQueryClient();
	const [refusal, setRefusal] = useState<Refusal>();
	const [busy, setBusy] = useState(false);
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
				return false;
			} finally {
				setBusy(false);
			}
		},
		[queries],
	);
	return { run, refusal, busy };
}
