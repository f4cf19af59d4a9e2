import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import type {
	LetterDeskDto,
	PreviewDto,
	RecordDto,
	SentDto,
} from "../../api/schema";
import { Alert, Select, TextArea, TextField } from "../../ui/Fields";
import { get, post } from "../../ui/http";
import { Shown } from "../../ui/Shown";
import { useKept } from "../../ui/useKept";
import { useAct } from "../useAct";

const empty = { subject: "", body: "" };

type Props = {
	record: RecordDto;
	/** The letter it begins with. */
	begin?: string;
	onClose: () => void;
};

/** A letter to the client, from a template or from nothing, with the earlier exchange below. */
export function LetterEditor({ record, begin, onClose }: Props) {
	const desk = useQuery({
		queryKey: ["letter-desk", record.id],
		queryFn: () => get<LetterDeskDto>(`/api/projects/${record.id}/letter`),
	});
	return (
		<div className="panel p-4">
			<Shown query={desk}>
				{(data) => (
					<Editor record={record} begin={begin} desk={data} onClose={onClose} />
				)}
			</Shown>
		</div>
	);
}

function Editor({
	record,
	begin: first,
	desk,
	onClose,
}: Props & { desk: LetterDeskDto }) {
	const asked = desk.templates.find((one) => one.key === first);
	const [draft, change, forget] = useKept(
		`letter:${record.id}${first ?? ""}`,
		asked ? { subject: asked.subject, body: asked.body } : empty,
	);
	const [sent, setSent] = useState<SentDto>();
	const act = useAct();
	const preview = usePreview(record.id, draft);

	function begin(key: string) {
		const template = desk.templates.find((one) => one.key === key);
		if (template) change({ subject: template.subject, body: template.body });
	}
	async function send() {
		const done = await act.run(async () =>
			setSent(await post<SentDto>(`/api/projects/${record.id}/letter`, draft)),
		);
		if (done) forget();
	}
	if (sent)
		return (
			<Sent sent={sent} onClose={onClose} onBack={() => setSent(undefined)} />
		);
	const gaps = preview?.gaps ?? [];
	return (
		<div className="grid gap-3">
			<div className="flex items-start">
				<h2>Letter to {desk.to}</h2>
				<button
					type="button"
					className="link ml-auto text-small"
					onClick={onClose}
				>
					Close
				</button>
			</div>
			<p className="under -mt-2">
				about {record.title}, to {desk.mail ?? "no address yet"}
			</p>
			<Select
				label="Begin with"
				value=""
				onChange={(e) => begin(e.target.value)}
			>
				<option value="">A letter of yours</option>
				{desk.templates.map((template) => (
					<option key={template.key} value={template.key}>
						{template.name}
					</option>
				))}
			</Select>
			<TextField
				label="Subject"
				value={draft.subject}
				wrong={act.refusal?.of("subject")}
				onChange={(e) => change({ ...draft, subject: e.target.value })}
			/>
			<TextArea
				label="Text"
				rows={11}
				value={draft.body}
				wrong={act.refusal?.of("body") ?? act.refusal?.of("text")}
				onChange={(e) => change({ ...draft, body: e.target.value })}
			/>
			{gaps.length > 0 && (
				<p role="status" className="border-l-4 border-ink pl-3 font-[650]">
					Not filled yet: {gaps.join(", ")}
				</p>
			)}
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
			<div>
				<button
					type="button"
					className="btn btn-go"
					disabled={act.busy}
					onClick={send}
				>
					Send the letter
				</button>
			</div>
			{desk.earlier.length > 0 && (
				<section className="border-t border-hair pt-3">
					<h3>Earlier</h3>
					{desk.earlier.map((letter, i) => (
						<details
							key={`${letter.subject}${i}`}
							open={i === 0}
							className="pt-2 text-[14px]"
						>
							<summary>
								{letter.who}, {letter.when}: {letter.subject}
							</summary>
							<p className="pt-1 whitespace-pre-line text-soft">
								{letter.text}
							</p>
						</details>
					))}
				</section>
			)}
		</div>
	);
}

/** Asks the server what is still empty, a moment after the last key. */
function usePreview(
	project: number,
	draft: { subject: string; body: string },
): PreviewDto | undefined {
	const [preview, setPreview] = useState<PreviewDto>();
	useEffect(() => {
		if (!draft.body) return setPreview(undefined);
		const timer = setTimeout(
			() =>
				post<PreviewDto>(`/api/projects/${project}/letter/preview`, draft).then(
					setPreview,
					() => setPreview(undefined),
				),
			250,
		);
		return () => clearTimeout(timer);
	}, [project, draft]);
	return preview;
}

/** It was sent, and can be taken back for a moment. */
export function Sent({
	sent,
	onClose,
	onBack,
}: {
	sent: SentDto;
	onClose: () => void;
	onBack: () => void;
}) {
	const act = useAct();
	return (
		<div role="status" className="grid gap-3">
			<h2>It is on its way</h2>
			<p>
				You can take it back for {sent.holdSeconds} seconds; then it leaves the
				house.
			</p>
			<div className="flex gap-2">
				<button type="button" className="btn btn-go" onClick={onClose}>
					Close
				</button>
				<button
					type="button"
					className="btn"
					disabled={act.busy}
					onClick={async () => {
						if (
							await act.run(() => post(`/api/letters/${sent.letter}/take-back`))
						)
							onBack();
					}}
				>
					Take it back
				</button>
			</div>
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
		</div>
	);
}
