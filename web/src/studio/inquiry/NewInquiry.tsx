import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useEffect, useState } from "react";
import { useNavigate } from "react-router";
import { answer, api, upload } from "../../api/client";
import type { Refusal } from "../../api/refusal";
import type { ReadInquiryDto } from "../../api/schema";
import { Alert } from "../../ui/Alert";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Tick } from "../../ui/Tick";
import { useKept } from "../../ui/useKept";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";

import { Fields } from "./Fields";
import { FromMessage } from "./FromMessage";
import { nothing, type Said } from "./said";
/** An inquiry that came by phone, chat, at a fair or by mail: a name and one way to reach them are enough. */
export default function NewInquiry({
	letter,
	onClose,
}: {
	letter: number;
	onClose: () => void;
}) {
	const [said, setSaid, forget] = useKept("inquiry", nothing);
	const [reading, setReading] = useState<string>();
	const [problem, setProblem] = useState<string>();
	const kinds = useQuery({
		queryKey: ["kinds"],
		queryFn: () => answer(api.GET("/api/kinds")),
	});
	const act = useAct();
	const navigate = useNavigate();
	const set = (part: Partial<Said>) => setSaid({ ...said, ...part });
	const take = (read: ReadInquiryDto) =>
		setSaid({
			...said,
			name: read.name ?? said.name,
			mail: read.mail ?? said.mail,
			phone: read.phone ?? said.phone,
			profile: read.profile ?? said.profile,
			words: read.words,
			letter: read.letter ?? 0,
		});
	async function read(from: () => Promise<ReadInquiryDto>) {
		setProblem(undefined);
		try {
			take(await from());
			setReading(undefined);
		} catch (error) {
			const refusal = error as Refusal;
			setProblem(refusal.of("file") ?? refusal.of("text") ?? refusal.message);
		}
	}
	useEffect(() => {
		if (letter)
			read(() =>
				answer(
					api.POST("/api/letters/{id}/read", {
						params: { path: { id: letter } },
					}),
				),
			);
	}, [letter]);
	const kind = said.kind || String(kinds.data?.[0]?.id ?? "");
	async function keep(event: FormEvent) {
		event.preventDefault();
		await act.run(async () => {
			const made = await answer(
				api.POST("/api/inquiries", {
					body: {
						kind: Number(kind),
						name: said.name,
						mail: said.mail || null,
						phone: said.phone || null,
						profile: said.profile || null,
						organisation: said.organisation || null,
						title: null,
						source: said.source || null,
						campaign: said.campaign || null,
						words: said.words || null,
						date: said.date || null,
						person: said.person ? Number(said.person) : null,
						letter: said.letter || null,
						followUp: said.followUp,
					},
				}),
			);
			forget();
			onClose();
			navigate(`/projects/${made.id}`);
		});
	}
	const wrong = (field: string) => act.refusal?.of(field);
	return (
		<Window title="A new inquiry" open onClose={onClose} wide>
			<form
				onSubmit={keep}
				className="grid gap-3"
				onDragOver={(e) => e.preventDefault()}
				onDrop={(e) => {
					e.preventDefault();
					const file = e.dataTransfer.files[0];
					if (file)
						read(() => upload<ReadInquiryDto>("/api/inquiries/letter", file));
				}}
			>
				<FromMessage read={read} reading={reading} onReading={setReading} />
				{problem && <Alert>{problem}</Alert>}
				<Fields
					said={said}
					kind={kind}
					kinds={kinds.data ?? []}
					wrong={wrong}
					onChange={set}
				/>
				<Tick
					label="Begin the follow-ups of the kind, with its thank-you letter"
					checked={said.followUp}
					onChange={(checked) => set({ followUp: checked })}
				/>
				<Refused of={act.refusal} />
				<div className="flex gap-2">
					<Button kind="go" type="submit" disabled={act.busy}>
						Keep the inquiry
					</Button>
					<Button
						onClick={() => {
							forget();
							setSaid(nothing);
						}}
					>
						Begin anew
					</Button>
				</div>
			</form>
		</Window>
	);
}
