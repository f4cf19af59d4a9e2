import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../../api/client";
import type { LetterDeskDto, RecordDto, SentDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { MomentField } from "../../ui/MomentField";
import { Refused } from "../../ui/Refused";
import { Shown } from "../../ui/Shown";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { useKept } from "../../ui/useKept";
import { useAct } from "../useAct";
import { Earlier, Filled } from "./Exchange";
import { Beginning, beginning, type Draft } from "./LetterBeginning";
import { LetterFiles } from "./LetterFiles";
import { Sent } from "./Sent";
import { Stays } from "./Stays";
import { TheirWords } from "./TheirWords";
import { usePreview } from "./usePreview";
import { type SaidWith, With, withLink } from "./With";

type Props = {
	record: RecordDto;
	/** The letter it begins with. */
	begin?: string;
	/** The client's letter it answers. */
	answers?: number;
	onClose: () => void;
};

/** A letter to the client, from a template or from nothing, with the earlier exchange below. */
export default function LetterEditor(props: Props) {
	const { record } = props;
	const desk = useQuery({
		queryKey: ["project", record.id, "letter"],
		queryFn: () =>
			answer(
				api.GET("/api/projects/{id}/letter", {
					params: { path: { id: record.id } },
				}),
			),
	});
	return (
		<div className="panel p-4">
			<Shown query={desk}>{(data) => <Editor {...props} desk={data} />}</Shown>
		</div>
	);
}

function Editor({
	record,
	begin: first,
	answers,
	desk,
	onClose,
}: Props & { desk: LetterDeskDto }) {
	const [draft, change, forget] = useKept<Draft>(
		`letter:${record.id}${first ?? ""}${answers ?? ""}`,
		beginning(desk, first, answers),
	);
	const [sent, setSent] = useState<SentDto>();
	const [said, setSaid] = useState<SaidWith>({ fit: false });
	const [later, setLater] = useState(Boolean(draft.sendAt));
	const act = useAct();
	const preview = usePreview(record.id, draft);

	async function send() {
		const done = await act.run(async () =>
			setSent(
				await answer(
					api.POST("/api/projects/{id}/letter", {
						params: { path: { id: record.id } },
						body: {
							subject: draft.subject,
							body: draft.body,
							template: draft.template ?? null,
							files: [...(draft.files ?? [])],
							sendAt: later && draft.sendAt ? draft.sendAt : null,
							answers: answers ?? null,
							fit: said.fit,
							offers: said.offers ?? null,
						},
					}),
				),
			),
		);
		if (done) forget();
	}
	if (sent)
		return (
			<Sent
				sent={sent}
				later={later}
				onClose={onClose}
				onBack={() => setSent(undefined)}
			/>
		);
	const gaps = preview?.gaps ?? [];
	return (
		<div className="grid gap-3">
			<div className="flex items-start">
				<h2>
					{answers ? "Answer" : "Letter"} to {desk.to}
				</h2>
				<Button kind="word" size="small" className="ml-auto" onClick={onClose}>
					Close
				</Button>
			</div>
			<p className="under -mt-2">
				about {record.head.title}, to {desk.mail ?? "no address yet"}
			</p>
			<TheirWords record={record} />
			{desk.stays && <Stays words={desk.stays} />}
			<Beginning desk={desk} draft={draft} onChange={change} />
			<TextField
				label="Subject"
				autoFocus={!draft.subject}
				value={draft.subject}
				wrong={act.refusal?.of("subject")}
				onChange={(e) => change({ ...draft, subject: e.target.value })}
			/>
			<TextArea
				label="Text"
				autoFocus={Boolean(draft.subject)}
				rows={11}
				value={draft.body}
				wrong={act.refusal?.of("body") ?? act.refusal?.of("text")}
				onChange={(e) => change({ ...draft, body: e.target.value })}
			/>
			{preview?.pieces.some((piece) => piece.blank) && (
				<Filled preview={preview} />
			)}
			{gaps.length > 0 && (
				<p role="status" className="border-l-4 border-ink pl-3 font-[650]">
					Not filled yet: {gaps.join(", ")}
				</p>
			)}
			<With
				record={record}
				said={said}
				wrong={act.refusal?.of("offers")}
				onChange={(next) => {
					setSaid(next);
					if (next.offers && !draft.body.includes("[page link]"))
						change({ ...draft, body: withLink(draft.body) });
				}}
			/>
			<LetterFiles
				files={draft.files ?? []}
				kept={desk.kept}
				wrong={act.refusal?.of("files")}
				onChange={(files) => change({ ...draft, files })}
			/>
			{later && (
				<MomentField
					label="Goes out"
					hint="in the studio's time; until then it can be taken back"
					value={draft.sendAt ?? ""}
					wrong={act.refusal?.of("later")}
					onChange={(at) => change({ ...draft, sendAt: at })}
				/>
			)}
			<Refused of={act.refusal} />
			<div className="flex gap-2">
				<Button
					kind="go"
					disabled={act.busy || (later && !draft.sendAt)}
					onClick={send}
				>
					{later ? "Send it then" : "Send the letter"}
				</Button>
				<Button
					aria-expanded={later}
					onClick={() => {
						if (!later && !draft.sendAt)
							change({ ...draft, sendAt: desk.tomorrow });
						setLater(!later);
					}}
				>
					{later ? "Send it now instead" : "Send later"}
				</Button>
			</div>
			<Earlier desk={desk} answers={answers} />
		</div>
	);
}
