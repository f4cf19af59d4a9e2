import { useCallback, useEffect, useState } from "react";
import { get, keepToken } from "../ui/http";

type Loaded<T> = { data?: T; error?: Error; reload: () => Promise<void> };

/** Loads a page's one answer, keeps its token, and loads it again on demand. */
export function useLoaded<T extends { token: string }>(
	path: string,
): Loaded<T> {
	const [state, setState] = useState<{ data?: T; error?: Error }>({});
	const reload = useCallback(async () => {
		try {
			const data = await get<T>(path);
			keepToken(data.token);
			setState({ data });
		} catch (error) {
			setState({ error: error as Error });
		}
	}, [path]);
	useEffect(() => {
		reload();
	}, [reload]);
	return { ...state, reload };
}
