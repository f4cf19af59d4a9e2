import { type ReactNode, useState } from "react";
import { answer, api } from "../api/client";
import type { Refusal } from "../api/refusal";
import type { AskSort, InvoicePageDto } from "../api/schema";
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

/** What can be said instead of a yes, and where it goes. */
type Voice = {
	/** What the button that opens it says. */
	open: string;
	/** “the proposal”. */
	paper: string;
	/** Whether words were said already, and wait for an answer. */
	said: boolean;
	owner: string;
	ask: (words: string, sort: AskSort) => Promise<unknown>;
	/** Where a no can be said. */
	decline?: (words: string) => Promise<unknown>;
	onDone: () => void;
	/** What stands before it, given how to say something at once. */
	before?: (say: (words: string) => void, said: boolean) => ReactNode;
};

/** Neither yes nor silence: a question, a change, an objection, or a no with its reason. */
export function Ask({
	page,
	link,
	ranOut,
	onDone,
}: Props & { ranOut: boolean }) {
	return (
		<Say
			open="Ask, object or decline"
			paper="the proposal"
			said={page.booking.askedForChange}
			owner={page.studio.owner}
			ask={(body, sort) =>
				answer(
					api.POST("/p/{link}/api/change", {
						params: { path: { link } },
						body: { words: body, sort },
					}),
				)
			}
			decline={(body) =>
				answer(
					api.POST("/p/{link}/api/decline", {
						params: { path: { link } },
						body: { words: body },
					}),
				)
			}
			onDone={onDone}
			before={(say, said) =>
				ranOut &&
				!said && (
					<Button
						kind="brand"
						size="big"
						className="w-full"
						onClick={() => say("The proposal has run out. Please renew it.")}
					>
						Ask to renew it
					</Button>
				)
			}
		/>
	);
}

/** The same of a contract or an amendment that waits for a signature. */
export function AskOfContract({ page, link, onDone }: Props) {
	const contract = page.booking.contract!;
	return (
		<Say
			open="Ask, object or decline to sign"
			paper={contract.amends ? "the amendment" : "the contract"}
			said={contract.asked}
			owner={page.studio.owner}
			ask={(body, sort) =>
				answer(
					api.POST("/p/{link}/api/contract/ask", {
						params: { path: { link } },
						body: { words: body, sort },
					}),
				)
			}
			decline={(body) =>
				answer(
					api.POST("/p/{link}/api/contract/decline", {
						params: { path: { link } },
						body: { words: body },
					}),
				)
			}
			onDone={onDone}
		/>
	);
}

/** A question or an objection about an invoice. */
export function AskOfInvoice({
	link,
	owner,
	invoice,
	onDone,
}: {
	link: string;
	owner: string;
	invoice: InvoicePageDto;
	onDone: () => void;
}) {
	return (
		<Say
			open="Ask about it, or object"
			paper="the invoice"
			said={invoice.pay?.asked ?? false}
			owner={owner}
			ask={(body, sort) =>
				answer(
					api.POST("/p/{link}/api/invoices/{invoice}/ask", {
						params: { path: { link, invoice: invoice.publicId } },
						body: { words: body, sort },
					}),
				)
			}
			onDone={onDone}
		/>
	);
}

function Say({
	open: opens,
	paper,
	said: before,
	owner,
	ask,
	decline,
	onDone,
	before: first,
}: Voice) {
	const [open, setOpen] = useState(false);
	const [what, setWhat] = useState<What>(decline ? "Change" : "Question");
	const [text, setText] = useState("");
	const [refusal, setRefusal] = useState<Refusal>();
	const [said, setSaid] = useState(before);

	async function say(sort: What, body: string) {
		setRefusal(undefined);
		try {
			await (sort === "Decline" ? decline?.(body) : ask(body, sort));
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
					{owner} has your words and will answer.
				</p>
			)}
			{first?.((body) => say("Change", body), said)}
			<Button
				kind="word"
				className="mt-2 w-full text-center font-head text-[14.5px] font-semibold text-brand"
				aria-expanded={open}
				onClick={() => setOpen(!open)}
			>
				{opens}
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
						{Object.entries(words)
							.filter(
								([sort]) => decline || !["Decline", "Change"].includes(sort),
							)
							.map(([sort, one]) => (
								<Choice key={sort} value={sort}>
									{sort === "Decline" ? `Decline ${paper}` : one.choice}
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
						{what === "Decline" ? `Decline ${paper}` : "Send your words"}
					</Button>
				</form>
			)}
		</div>
	);
}
