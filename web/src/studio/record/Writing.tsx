import { answer, api } from "../../api/client";
import { Button } from "../../ui/Button";
import { LineField } from "../../ui/LineField";
import { Refused } from "../../ui/Refused";
import { useKept } from "../../ui/useKept";
import { useAct } from "../useAct";

/** The one writing field on today's rule. */
export function Writing({
	project,
	onWrite,
}: {
	project: number;
	onWrite: () => void;
}) {
	const [text, change, forget] = useKept(`note:${project}`, "");
	const act = useAct();
	const isCall = /^call\b/i.test(text);
	async function keep() {
		const words = isCall ? text.replace(/^call[:,]?\s*/i, "") : text;
		const kind = isCall
			? () =>
					answer(
						api.POST("/api/projects/{id}/happened", {
							params: { path: { id: project } },
							body: { sort: "Call", words, credit: false },
						}),
					)
			: () =>
					answer(
						api.POST("/api/projects/{id}/notes", {
							params: { path: { id: project } },
							body: { text: words },
						}),
					);
		if (!(await act.run(kind))) return;
		change("");
		forget();
	}
	return (
		<div className="my-1 mb-3 border-y-[1.5px] border-ink bg-sheet">
			<form
				className="flex flex-wrap items-center gap-2.5 py-1.5 pr-2.5"
				onSubmit={(event) => {
					event.preventDefault();
					keep();
				}}
			>
				<span className="w-[92px] pr-2.5 text-right font-head text-[13.5px] font-[650] max-md:w-auto max-md:pl-2">
					Today
				</span>
				<LineField
					id="write-here"
					label="Write a note, or begin with “call”"
					placeholder="A note, or “call” and what was said"
					value={text}
					onChange={(e) => change(e.target.value)}
				/>
				{text.trim() ? (
					<Button kind="go" type="submit" disabled={act.busy}>
						Keep this {isCall ? "call" : "note"}
					</Button>
				) : (
					<Button className="max-lg:hidden" onClick={onWrite}>
						Write a letter
					</Button>
				)}
			</form>
			<Refused of={act.refusal} />
		</div>
	);
}
