import { useState } from "react";
import { answer, api } from "../api/client";
import type { Refusal } from "../api/refusal";
import type { PagePart } from "../api/schema";
import { Button } from "../ui/Button";
import { Refused } from "../ui/Refused";
import { TextArea } from "../ui/TextArea";

/** A question about a part of the page; it is acknowledged at once, and the owner's to answer. */
export function AskPart({
	part,
	link,
	owner,
	reload,
}: {
	part: PagePart;
	link: string;
	owner: string;
	reload: () => Promise<void>;
}) {
	const [words, setWords] = useState<string>();
	const [sent, setSent] = useState<string>();
	const [refusal, setRefusal] = useState<Refusal>();
	async function send() {
		try {
			await answer(
				api.POST("/p/{link}/api/ask", {
					params: { path: { link } },
					body: { part, words: words ?? "" },
				}),
			);
			setRefusal(undefined);
			setSent(words);
			setWords(undefined);
			await reload();
		} catch (error) {
			setRefusal(error as Refusal);
		}
	}
	return (
		<div className="pt-3">
			{sent && (
				<div role="status" className="mb-3 bg-plaster p-4">
					<p className="font-[650]">{owner} has your words and will answer.</p>
					<p className="pt-1 break-words whitespace-pre-line">“{sent}”</p>
				</div>
			)}
			{words === undefined ? (
				<Button kind="word" onClick={() => setWords("")}>
					{part === "Help" ? "Ask for help here" : "Ask about this"}
				</Button>
			) : (
				<div className="grid gap-2">
					<TextArea
						label="Your question"
						rows={3}
						value={words}
						wrong={refusal?.of("words") ?? refusal?.of("text")}
						onChange={(e) => setWords(e.target.value)}
					/>
					<Refused of={refusal} />
					<div className="flex gap-2">
						<Button kind="brand" onClick={send}>
							Send it
						</Button>
						<Button onClick={() => setWords(undefined)}>Never mind</Button>
					</div>
				</div>
			)}
		</div>
	);
}
