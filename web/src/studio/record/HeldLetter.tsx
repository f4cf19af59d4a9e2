import { useState } from "react";
import type { ReaderDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { useKept } from "../../ui/useKept";
import { Later } from "../today/Later";
import { useAct } from "../useAct";
import { useLetterActs } from "../useLetterActs";

/** A letter that waits for an OK: send, change, put off, or skip. */
export function Held({
	data,
	onClose,
}: {
	data: ReaderDto;
	onClose: () => void;
}) {
	const [draft, change, forget] = useKept(`held:${data.heldLetter}`, {
		subject: data.title,
		body: data.text.replace(
			"[their own link, put in when it leaves]",
			"[page link]",
		),
	});
	const act = useAct();
	const [later, setLater] = useState(false);
	const letter = useLetterActs(act, data.heldLetter!, data.title);
	const leave = () => {
		forget();
		onClose();
	};
	return (
		<div className="grid gap-3">
			{data.gaps && <p className="font-[650]">It still lacks: {data.gaps}</p>}
			{data.letter?.problem && (
				<p className="font-[650]">It was refused: {data.letter.problem}</p>
			)}
			<TextField
				label="Subject"
				value={draft.subject}
				wrong={act.refusal?.of("subject")}
				onChange={(e) => change({ ...draft, subject: e.target.value })}
			/>
			<TextArea
				label="Text"
				rows={12}
				value={draft.body}
				wrong={act.refusal?.of("body")}
				onChange={(e) => change({ ...draft, body: e.target.value })}
			/>
			<Refused of={act.refusal} />
			<div className="flex gap-2">
				<Button
					kind="go"
					disabled={act.busy}
					onClick={async () => (await letter.send(draft)) && leave()}
				>
					Send
				</Button>
				<Button
					disabled={act.busy}
					onClick={async () => (await letter.skip()) && leave()}
				>
					Skip
				</Button>
				{data.letter?.canWait && (
					<Button aria-expanded={later} onClick={() => setLater(!later)}>
						Later
					</Button>
				)}
			</div>
			{later && data.heldLetter && (
				<Later letter={data.heldLetter} text={draft} onDone={leave} />
			)}
		</div>
	);
}
