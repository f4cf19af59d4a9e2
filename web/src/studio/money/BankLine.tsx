import { useState } from "react";
import { answer, api } from "../../api/client";
import type { BankLineDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Kbd } from "../../ui/Kbd";
import { Refused } from "../../ui/Refused";
import { useUndo } from "../../ui/Undo";
import { isTyping } from "../Keys";
import { useAct } from "../useAct";
import { ChooseInvoices } from "./ChooseInvoices";

/** What may be done with any line of the bank. */
export function useBankLine(id: number) {
	const act = useAct();
	const offer = useUndo();
	const params = { path: { id } };
	const undo = () =>
		act.run(() => answer(api.POST("/api/bank/lines/{id}/undo", { params })));
	const then = async (done: Promise<boolean>, words: string) => {
		const did = await done;
		if (did) offer({ words, undo });
		return did;
	};
	return {
		...act,
		undo,
		book: (invoices: number[], words: string) =>
			then(
				act.run(() =>
					answer(
						api.POST("/api/bank/lines/{id}/book", {
							params,
							body: { invoices },
						}),
					),
				),
				words,
			),
		pays: (cost: number, words: string) =>
			then(
				act.run(() =>
					answer(
						api.POST("/api/bank/lines/{id}/cost", { params, body: { cost } }),
					),
				),
				words,
			),
		setAside: () =>
			then(
				act.run(() =>
					answer(api.POST("/api/bank/lines/{id}/set-aside", { params })),
				),
				"Set aside: it pays no invoice",
			),
	};
}

/** Money that came in: one key books it on what is offered, or sets it aside. */
export function BankLine({ line }: { line: BankLineDto }) {
	const act = useBankLine(line.id);
	const [choosing, setChoosing] = useState(false);
	const book = (offer: BankLineDto["offers"][number]) =>
		act.book([offer.invoice], `${line.amount} booked on ${offer.number}`);
	return (
		<article
			aria-label={`${line.amount} from ${line.party || "somebody unnamed"}, ${line.on}`}
			// biome-ignore lint/a11y/noNoninteractiveTabindex: it is walked to with j and k
			tabIndex={0}
			data-walk
			className="border-b border-hair py-3 focus-visible:bg-sheet focus-visible:outline-offset-0"
			onKeyDown={(event) => {
				if (isTyping(event.target) || act.busy) return;
				const chosen = line.offers[Number(event.key) - 1];
				if (chosen) book(chosen);
				else if (event.key === "x") act.setAside();
				else if (event.key === "o") {
					event.preventDefault();
					setChoosing(true);
				}
			}}
		>
			<p className="flex gap-3">
				<span className="min-w-0 flex-1">
					<b className="font-[650]">{line.party || "no name"}</b>{" "}
					<span className="under">{line.on}</span>
				</span>
				<b className="num">{line.amount}</b>
			</p>
			{line.text && <p className="text-soft break-words">{line.text}</p>}
			<ul className="grid gap-1.5 pt-2">
				{line.offers.map((offer, i) => (
					<li
						key={offer.invoice}
						className="flex flex-wrap items-center gap-x-3 gap-y-1"
					>
						<Button disabled={act.busy} onClick={() => book(offer)}>
							Book on {offer.number}
							<Kbd>{i + 1}</Kbd>
						</Button>
						<span className="min-w-0 flex-1">
							{offer.client}, <span className="num">{offer.owed}</span> open
							<span className="under block">{offer.why}</span>
						</span>
					</li>
				))}
			</ul>
			{line.offers.length === 0 && (
				<p className="under">No open invoice fits it.</p>
			)}
			<div className="flex flex-wrap gap-2 pt-2">
				<Button kind="word" onClick={() => setChoosing(true)}>
					Other invoices, or several <Kbd>o</Kbd>
				</Button>
				<Button kind="word" disabled={act.busy} onClick={act.setAside}>
					Set it aside <Kbd>x</Kbd>
				</Button>
			</div>
			<Refused of={act.refusal} />
			{choosing && (
				<ChooseInvoices
					line={line}
					onBook={act.book}
					onClose={() => setChoosing(false)}
				/>
			)}
		</article>
	);
}
