import { useState } from "react";
import { answer, api } from "../api/client";
import type { Refusal } from "../api/refusal";
import { Button } from "../ui/Button";
import { TextArea } from "../ui/TextArea";
import type { Props } from "./Choose";

export function AskForChange({ page, link, onDone }: Props) {
	const [open, setOpen] = useState(false);
	const [words, setWords] = useState("");
	const [wrong, setWrong] = useState<string>();
	const [said, setSaid] = useState(page.booking.askedForChange);
	async function say(what: "change" | "decline") {
		try {
			await answer(
				what === "change"
					? api.POST("/p/{link}/api/change", {
							params: { path: { link } },
							body: { words },
						})
					: api.POST("/p/{link}/api/decline", {
							params: { path: { link } },
							body: { words },
						}),
			);
			setSaid(true);
			setOpen(false);
			onDone();
		} catch (refusal) {
			setWrong((refusal as Refusal).message);
		}
	}
	return (
		<div className="pt-3 text-center">
			{said && (
				<p role="status" className="pb-2">
					{page.studio.owner} has your words and will answer.
				</p>
			)}
			<Button
				kind="word"
				className="font-head text-[14.5px] font-semibold text-brand"
				aria-expanded={open}
				onClick={() => setOpen(!open)}
			>
				Ask for a change
			</Button>
			{open && (
				<div className="grid gap-2 pt-3 text-left">
					<TextArea
						label="What should be different?"
						rows={3}
						value={words}
						wrong={wrong}
						onChange={(e) => setWords(e.target.value)}
					/>
					<div className="flex flex-wrap gap-2">
						<Button onClick={() => say("change")}>Send your words</Button>
						<Button onClick={() => say("decline")}>Decline the proposal</Button>
					</div>
				</div>
			)}
		</div>
	);
}
