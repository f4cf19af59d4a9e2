import { useCallback, useEffect, useState } from "react";
import { keepToken } from "../api/client";

type Loaded<T> = { data?: T; error?: Error; reload: () => Promise<void> };

/** Loads a page's one answer, keeps its token, and loads it again on demand. */
export function useLoaded<T extends { token: string }>(
	/** Stays the same as long as it loads the same. */
	load: () => Promise<T>,
): Loaded<T> {
	const [state, setState] = useState<{ data?: T; error?: Error }>({});
	const reload = useCallback(async () => {
		try {
			const data = await load();
			keepToken(data.token);
			setState({ data });
		} catch (error) {
			setState({ error: error as Error });
		}
	}, [load]);
	useEffect(() => {
		reload();
	}, [reload]);
	return { ...state, reload };
}
