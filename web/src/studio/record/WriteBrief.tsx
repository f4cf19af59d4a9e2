import { useCallback, useEffect, useRef, useState } from "react";
import { answer, api } from "../../api/client";
import type { Refusal } from "../../api/refusal";
import type { BriefPartOfDto, SaveBriefDto } from "../../api/schema";
import { Refused } from "../../ui/Refused";
import { TextArea } from "../../ui/TextArea";
import { useKept } from "../../ui/useKept";
import { useAct } from "../useAct";

/** Kept by itself a moment after the last key; what another window wrote meanwhile is shown beside it. */
export function Write({
	part,
	project,
}: {
	part: BriefPartOfDto;
	project: number;
}) {
	const [text, setText, forget] = useKept(
		`brief:${project}:${part.key}`,
		part.text,
	);
	const [refusal, setRefusal] = useState<Refusal>();
	const act = useAct();
	const keep = useCallback(
		async (said: string) => {
			try {
				await answer(
					api.PUT("/api/projects/{id}/brief/{part}", {
						params: { path: { id: project, part: part.key } },
						body: {
							text: said,
							edition: part.edition,
						},
					}),
				);
				forget();
				await act.run(async () => undefined);
			} catch (error) {
				setRefusal(error as Refusal);
			}
		},
		[project, part, forget, act.run],
	);
	const timer = useRef(0);
	useEffect(() => {
		if (text === part.text) return;
		timer.current = window.setTimeout(() => keep(text), 900);
		return () => clearTimeout(timer.current);
	}, [text, part.text, keep]);
	const theirs = refusal?.theirs as SaveBriefDto | undefined;
	return (
		<div className="pt-1">
			<TextArea
				label={part.name}
				hidden
				rows={4}
				autoFocus
				hint={
					part.use === "Obstacle"
						? "one a line; “paint: damp in the corner” comes back with that phase"
						: text === part.text
							? "kept"
							: "kept in a moment"
				}
				value={text}
				wrong={refusal?.of("text")}
				onChange={(e) => setText(e.target.value)}
				// leaving it keeps it at once: the next part may close this one
				onBlur={() => {
					clearTimeout(timer.current);
					if (text !== part.text) keep(text);
				}}
			/>
			<Refused of={refusal} />
			{theirs && (
				<p className="pt-1 whitespace-pre-line">
					The other text: {theirs.text}
				</p>
			)}
		</div>
	);
}
