import { useState } from "react";
import { answer, api } from "../../api/client";
import type { BillDraftDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { useAct } from "../useAct";
import { useOnItsWay } from "../useOnItsWay";

/** The letter that carries the invoice, and the act that gives it its number. */
export function Issue({
	project,
	draft,
	ready,
	onDone,
}: {
	project: number;
	draft: BillDraftDto;
	/** Whether all that was typed is kept, and nothing is missing. */
	ready: boolean;
	onDone: () => void;
}) {
	const { to, ...first } = draft.letter;
	const [letter, setLetter] = useState(first);
	const act = useAct();
	const onItsWay = useOnItsWay();
	const issue = (withLetter: boolean) =>
		act.run(async () => {
			const issued = await answer(
				api.POST("/api/projects/{id}/bill/issue", {
					params: { path: { id: project } },
					body: {
						edition: draft.edition,
						...(withLetter ? letter : {}),
					},
				}),
			);
			if (issued.letter !== null) onItsWay(issued.letter, issued.subject);
			onDone();
		});
	return (
		<section className="panel grid gap-3 p-4" aria-label="Issue it">
			<h2>The letter with it</h2>
			{to ? (
				<>
					<p className="under">
						To {to}, with the invoice as PDF and as data. What stands in
						brackets is filled in as it is issued.
					</p>
					<TextField
						label="Subject"
						value={letter.subject}
						wrong={act.refusal?.of("subject")}
						onChange={(e) => setLetter({ ...letter, subject: e.target.value })}
					/>
					<TextArea
						label="Letter"
						rows={9}
						value={letter.body}
						wrong={act.refusal?.of("body")}
						onChange={(e) => setLetter({ ...letter, body: e.target.value })}
					/>
				</>
			) : (
				<p className="under">
					No mail address is known: it goes without a letter, and stands on the
					client’s page.
				</p>
			)}
			<Refused of={act.refusal} />
			<div className="flex flex-wrap gap-2">
				{to && (
					<Button
						kind="go"
						disabled={!ready || act.busy}
						onClick={() => issue(true)}
					>
						Issue {draft.for.number} and send it
					</Button>
				)}
				<Button
					kind={to ? undefined : "go"}
					disabled={!ready || act.busy}
					onClick={() => issue(false)}
				>
					{to ? "Issue without a letter" : `Issue ${draft.for.number}`}
				</Button>
			</div>
			<p className="under">
				Once it has its number it never changes: what is wrong with it is taken
				back by a credit note.
			</p>
		</section>
	);
}
