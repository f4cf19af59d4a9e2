import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../../api/client";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { carrying } from "../carrying";
import { useAct } from "../useAct";
import { useOnItsWay } from "../useOnItsWay";

/** The letter that carries the proposal, or the amendment. */
export function SendProposal({
	project,
	ready,
	kept,
	edition,
	amends,
	onSent,
}: {
	project: number;
	edition: number;
	ready: boolean;
	/** Whether all that was typed is kept. */
	kept: boolean;
	/** Whether it is an amendment. */
	amends: boolean;
	onSent: () => void;
}) {
	// filled anew with every kept draft, so that it says the date and price that go out
	const desk = useQuery({
		queryKey: ["project", project, "letter", edition],
		queryFn: () =>
			answer(
				api.GET("/api/projects/{id}/letter", {
					params: { path: { id: project } },
				}),
			),
		placeholderData: keepPreviousData,
	});
	const [written, setLetter] = useState<{ subject: string; body: string }>();
	const act = useAct();
	const onItsWay = useOnItsWay();
	const template = carrying(desk.data, amends ? "amendment" : "proposal");
	const text = written ?? {
		subject: template?.subject ?? "",
		body: template?.body ?? "",
	};
	const send = () =>
		act.run(async () => {
			const sent = await answer(
				api.POST("/api/projects/{id}/proposal/send", {
					params: { path: { id: project } },
					body: text,
				}),
			);
			onItsWay(sent.letter, text.subject);
			onSent();
		});
	return (
		<section className="panel grid gap-3 p-4">
			<h2>The letter with it</h2>
			<TextField
				label="Subject"
				value={text.subject}
				wrong={act.refusal?.of("subject")}
				onChange={(e) => setLetter({ ...text, subject: e.target.value })}
			/>
			<TextArea
				label="Letter"
				rows={9}
				value={text.body}
				wrong={act.refusal?.of("body")}
				onChange={(e) => setLetter({ ...text, body: e.target.value })}
			/>
			<Refused of={act.refusal} />
			<Button
				kind="go"
				disabled={!ready || act.busy || desk.isPlaceholderData}
				onClick={send}
			>
				{amends ? "Send the amendment" : "Send the proposal"}
			</Button>
			{!kept && <p className="under">once it is kept</p>}
		</section>
	);
}
