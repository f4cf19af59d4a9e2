import { useQuery } from "@tanstack/react-query";
import { type ReactNode, useEffect, useState } from "react";
import { answer, api } from "../../api/client";
import type { Refusal } from "../../api/refusal";
import type { SentDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Shown } from "../../ui/Shown";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { carrying } from "../carrying";
import { useAct } from "../useAct";
import { Sent } from "./Sent";

export type CarryingLetter = { subject: string; body: string };

/** Something that is done and carried by a letter: its own fields above, the letter below, one button. */
export function Carried({
	project,
	title,
	template,
	button,
	disabled,
	send,
	onClose,
	children,
}: {
	project: number;
	title: string;
	/** The letter it begins with, by its key. */
	template: string;
	button: string;
	disabled?: boolean;
	send: (letter: CarryingLetter) => Promise<SentDto>;
	onClose: () => void;
	children: (refusal: Refusal | undefined) => ReactNode;
}) {
	const desk = useQuery({
		queryKey: ["project", project, "letter"],
		queryFn: () =>
			answer(
				api.GET("/api/projects/{id}/letter", {
					params: { path: { id: project } },
				}),
			),
	});
	const [letter, setLetter] = useState<CarryingLetter>();
	const [sent, setSent] = useState<SentDto>();
	const act = useAct();
	useEffect(() => {
		const found = carrying(desk.data, template);
		if (found)
			setLetter((mine) => mine ?? { subject: found.subject, body: found.body });
	}, [desk.data, template]);
	if (sent)
		return (
			<div className="panel p-4">
				<Sent sent={sent} onClose={onClose} onBack={onClose} />
			</div>
		);
	return (
		<div className="panel p-4">
			<Shown query={desk}>
				{() => (
					<div className="grid gap-3">
						<div className="flex items-start">
							<h2>{title}</h2>
							<Button
								kind="word"
								size="small"
								className="ml-auto"
								onClick={onClose}
							>
								Close
							</Button>
						</div>
						{children(act.refusal)}
						<TextField
							label="Subject"
							value={letter?.subject ?? ""}
							wrong={act.refusal?.of("subject")}
							onChange={(e) =>
								setLetter({ body: "", ...letter, subject: e.target.value })
							}
						/>
						<TextArea
							label="Letter"
							rows={9}
							value={letter?.body ?? ""}
							wrong={act.refusal?.of("body") ?? act.refusal?.of("text")}
							onChange={(e) =>
								setLetter({ subject: "", ...letter, body: e.target.value })
							}
						/>
						<Refused of={act.refusal} />
						<div>
							<Button
								kind="go"
								disabled={disabled || act.busy}
								onClick={() =>
									act.run(async () =>
										setSent(await send(letter ?? { subject: "", body: "" })),
									)
								}
							>
								{button}
							</Button>
						</div>
					</div>
				)}
			</Shown>
		</div>
	);
}
