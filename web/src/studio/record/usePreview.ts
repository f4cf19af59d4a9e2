import { useEffect, useState } from "react";
import { answer, api } from "../../api/client";
import type { PreviewDto } from "../../api/schema";
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
				answer(
					api.POST("/api/projects/{id}/letter/preview", {
						params: { path: { id: project } },
						body: {
							subject,
							body,
						},
					}),
				).then(setPreview, () => setPreview(undefined)),
			250,
		);
		return () => clearTimeout(timer);
	}, [project, subject, body]);
	return preview;
}
