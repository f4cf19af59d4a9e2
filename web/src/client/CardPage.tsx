import { type FormEvent, useCallback, useState } from "react";
import { answer, api } from "../api/client";
import type { Refusal } from "../api/refusal";
import { Button } from "../ui/Button";
import { TextField } from "../ui/TextField";
import { Failed, Notice } from "./Frame";
import { useLoaded } from "./useLoaded";

/** The stand-in's payment page. No money moves, and no real card may be typed in. */
export default function CardPage({ session }: { session: string }) {
	const { data: page, error } = useLoaded(
		useCallback(
			() =>
				answer(
					api.GET("/card-house/{session}", { params: { path: { session } } }),
				),
			[session],
		),
	);
	const [number, setNumber] = useState("");
	const [wrong, setWrong] = useState<string>();
	const [busy, setBusy] = useState(false);
	if (error) return <Failed error={error} />;
	if (!page) return <Notice title="One moment" />;

	async function pay(event: FormEvent) {
		event.preventDefault();
		setBusy(true);
		try {
			await answer(
				api.POST("/card-house/{session}", {
					params: { path: { session } },
					body: { number },
				}),
			);
			location.assign(page!.returnTo);
		} catch (refusal) {
			setWrong((refusal as Refusal).message);
			setBusy(false);
		}
	}
	return (
		<Notice
			title={
				page.byCard ? "Card payment, a stand-in" : "Bank payment, a stand-in"
			}
		>
			<p className="pb-4 text-soft">
				This page stands in for a provider of payments while you try Gesamt. No
				money moves.
			</p>
			<div className="flex items-baseline gap-3 border-y-[1.5px] border-ink py-3">
				<span>{page.what}</span>
				<b className="num ml-auto text-[21px] whitespace-nowrap">
					{page.amount}
				</b>
			</div>
			{page.state === "Paid" || page.state === "Pending" ? (
				<p className="pt-4">
					{page.state === "Paid" ? "This is paid." : "The money is on its way."}{" "}
					<Button asChild kind="word">
						<a href={page.returnTo}>Go back</a>
					</Button>
				</p>
			) : (
				<form noValidate onSubmit={pay} className="grid gap-3 pt-4">
					<TextField
						label={page.byCard ? "Card number" : "Account number"}
						inputMode="numeric"
						value={number}
						wrong={wrong}
						onChange={(e) => setNumber(e.target.value)}
					/>
					<Button kind="go" type="submit" disabled={busy}>
						Pay {page.amount}
					</Button>
					<ul className="under">
						{page.choices.map((card) => (
							<li key={card.number} className="pt-1">
								<Button
									kind="word"
									className="num"
									onClick={() => setNumber(card.number)}
								>
									{card.number}
								</Button>{" "}
								{card.does}
							</li>
						))}
					</ul>
				</form>
			)}
		</Notice>
	);
}
