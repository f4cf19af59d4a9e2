import { useEffect, useState } from "react";
import type { PreviewDto } from "../../api/schema";
import { post } from "../../ui/http";
import type { Draft } from "./LetterBeginning";

/** Asks the server how it reads and what is still empty, a moment after the last key. */
export function usePreview(
	project: number,
	{ subject, body }: Draft,
): PreviewDto | undefined {
	const [preview, setPreview] = useState<PreviewDto>();
	useEffect(() => {
		if (!body) return setPreview(undefined);
		const timer = setTimeout(
			() =>
				post<PreviewDto>(`/api/projects/${project}/letter/preview`, {
					subject,
					body,
				}).then(setPreview, () => setPreview(undefined)),
			250,
		);
		return () => clearTimeout(timer);
	}, [project, subject, body]);
	return preview;
}
