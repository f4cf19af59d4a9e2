import { useState } from "react";
import { answer, api } from "../api/client";
import type { Refusal } from "../api/refusal";
import type { AskSort } from "../api/schema";
import { Button } from "../ui/Button";
import { Choice, Choices } from "../ui/Choice";
import { Refused } from "../ui/Refused";
import { TextArea } from "../ui/TextArea";
import type { Props } from "./Choose";

type What = AskSort | "Decline";

const words: Record<What, { choice: string; label: string }> = {
	Question: { choice: "Ask a question", label: "What would you like to know?" },
	Change: { choice: "Ask for a change", label: "What should be different?" },
	Objection: { choice: "Object to something", label: "What is not right?" },
	Decline: { choice: "Decline the proposal", label: "May we know why?" },
};

/** Neither yes nor silence: a question, a change, an objection, or a no with its reason. */
export function Ask({
	page,
	link,
	ranOut,
	onDone,
}: Props & { ranOut: boolean }) {
	const [open, setOpen] = useState(false);
	const [what, setWhat] = useState<What>("Change");
	const [text, setText] = useState("");
	const [refusal, setRefusal] = useState<Refusal>();
	const [said, setSaid] = useState(page.booking.askedForChange);

	async function say(sort: What, body: string) {
		setRefusal(undefined);
		try {
			await answer(
				sort === "Decline"
					? api.POST("/p/{link}/api/decline", {
							params: { path: { link } },
							body: { words: body },
						})
					: api.POST("/p/{link}/api/change", {
							params: { path: { link } },
							body: { words: body, sort },
						}),
			);
			setSaid(true);
			setOpen(false);
			onDone();
		} catch (refused) {
			setRefusal(refused as Refusal);
		}
	}
	return (
		<div className="pt-3">
			{said && (
				<p role="status" className="pb-2 text-center">
					{page.studio.owner} has your words and will answer.
				</p>
			)}
			{ranOut && !said && (
				<Button
					kind="brand"
					size="big"
					className="w-full"
					onClick={() =>
						say("Change", "The proposal has run out. Please renew it.")
					}
				>
					Ask to renew it
				</Button>
			)}
			<Button
				kind="word"
				className="mt-2 w-full text-center font-head text-[14.5px] font-semibold text-brand"
				aria-expanded={open}
				onClick={() => setOpen(!open)}
			>
				Ask, object or decline
			</Button>
			{open && (
				<form
					noValidate
					className="grid gap-3 pt-3"
					onSubmit={(event) => {
						event.preventDefault();
						say(what, text);
					}}
				>
					<Choices
						label="What would you like to say?"
						value={what}
						onChange={(one) => setWhat(one as What)}
					>
						{Object.entries(words).map(([sort, one]) => (
							<Choice key={sort} value={sort}>
								{one.choice}
							</Choice>
						))}
					</Choices>
					<TextArea
						label={words[what].label}
						rows={3}
						value={text}
						wrong={refusal?.of("words")}
						onChange={(e) => setText(e.target.value)}
					/>
					<Refused of={refusal} />
					<Button type="submit">
						{what === "Decline" ? "Decline the proposal" : "Send your words"}
					</Button>
				</form>
			)}
		</div>
	);
}
