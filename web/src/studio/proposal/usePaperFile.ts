import { upload } from "../../api/client";
import type { PaperFileDto } from "../../api/schema";
import { useAct } from "../useAct";

/** Where a file that papers show is read by its owner. */
export const paperFileAt = (hash: string) => `/api/paper-files/${hash}`;

/** Keeps a picture or a PDF for papers; what is refused is told at the lower edge. */
export function usePaperFile(onKept: (file: PaperFileDto) => void) {
	const act = useAct("below");
	return (files: File[]) =>
		act.run(async () => {
			for (const file of files)
				onKept(
					await upload<PaperFileDto>(
						`/api/paper-files?name=${encodeURIComponent(file.name)}`,
						file,
					),
				);
		});
}
