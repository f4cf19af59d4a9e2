import { useUndo } from "../ui/Undo";
import type { useAct } from "./useAct";

/** Takes something out of a project and closes what it was changed in; the offer to put it back stays for a while. */
export function useTakeOut(
	act: ReturnType<typeof useAct>,
	onClose: () => void,
) {
	const offer = useUndo();
	return async (
		words: string,
		write: (removed: boolean) => Promise<unknown>,
	) => {
		const set = (removed: boolean) => act.run(() => write(removed));
		if (!(await set(true))) return;
		offer({ words: `Taken out: ${words}`, undo: () => set(false) });
		onClose();
	};
}
