import { useRef, useState } from "react";
import { upload } from "../../api/client";
import type { Refusal } from "../../api/refusal";
import type { HandedInDto } from "../../api/schema";
import { useAct } from "../useAct";

/** How far handing in has come, and what became of it. */
export type Handing = {
	done: number;
	of: number;
	sum: HandedInDto;
	refused: readonly { path: string; why: string }[];
};

const tooLarge = 413;

const nothing: HandedInDto = { letters: 0, files: 0, known: 0, unread: 0 };

/** Hands letters and files in beside a table, one after another: what is refused of them does not stop the others. */
export function useHandIn(id: number) {
	const [handing, setHanding] = useState<Handing>();
	const act = useAct();
	const stopped = useRef(false);
	async function handIn(files: File[], letters = false) {
		stopped.current = false;
		let now: Handing = { done: 0, of: files.length, sum: nothing, refused: [] };
		setHanding(now);
		await act.run(async () => {
			for (const file of files) {
				if (stopped.current) break;
				const path = file.webkitRelativePath || file.name;
				try {
					const one = await upload<HandedInDto>(
						`/api/imports/${id}/beside?path=${encodeURIComponent(path)}&letters=${letters}`,
						file,
					);
					now = { ...now, sum: added(now.sum, one) };
				} catch (error) {
					const refusal = error as Refusal;
					if (!refusal.hasFields && refusal.status !== tooLarge) throw error;
					now = {
						...now,
						refused: [
							...now.refused,
							{ path, why: refusal.rest ?? refusal.message },
						],
					};
				}
				now = { ...now, done: now.done + 1 };
				setHanding(now);
			}
		});
	}
	return {
		handing,
		busy: act.busy,
		refusal: act.refusal,
		handIn,
		stop: () => {
			stopped.current = true;
		},
		run: act.run,
	};
}

function added(a: HandedInDto, b: HandedInDto): HandedInDto {
	return {
		letters: a.letters + b.letters,
		files: a.files + b.files,
		known: a.known + b.known,
		unread: a.unread + b.unread,
	};
}
