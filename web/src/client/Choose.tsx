import { useEffect, useState } from "react";
import { answer, api } from "../api/client";
import type { Refusal } from "../api/refusal";
import type { ClientPageDto, PricedDto } from "../api/schema";
import { Alert } from "../ui/Alert";
import { Button } from "../ui/Button";
import { Ask } from "./Ask";
import { ReadProposal } from "./ReadProposal";
import { type Chosen, Services } from "./Services";
import { Sum } from "./Sum";
import { useOpened } from "./useOpened";

export type Props = { page: ClientPageDto; link: string; onDone: () => void };

/** Choosing: total and instalments change at once, computed by the server. */
export function Choose({
	page,
	link,
	onDone,
	onBack,
}: Props & {
	/** Back to the contract of the choice made before. */
	onBack?: () => void;
}) {
	const proposal = page.booking.proposal!;
	const [chosen, setChosen] = useState<Chosen>({
		keys: proposal.priced.chosen,
		quantities: proposal.priced.quantities,
	});
	const [priced, setPriced] = useState<PricedDto>(proposal.priced);
	const [error, setError] = useState<Refusal>();
	const [busy, setBusy] = useState(false);
	useOpened(link);

	useEffect(() => {
		let newest = true;
		answer(
			api.GET("/p/{link}/api/price", {
				params: {
					path: { link },
					query: {
						choose: [...chosen.keys],
						quantity: chosen.quantities.map(
							(one) => `${one.key}=${one.quantity}`,
						),
					},
				},
			}),
		).then(
			(now) => {
				if (!newest) return;
				setPriced(now);
				setError(undefined);
			},
			(refusal: Refusal) => newest && setError(refusal),
		);
		return () => {
			newest = false;
		};
	}, [link, chosen]);

	async function accept() {
		setBusy(true);
		try {
			await answer(
				api.POST("/p/{link}/api/accept", {
					params: { path: { link } },
					body: {
						chosen: [...chosen.keys],
						quantities: [...chosen.quantities],
					},
				}),
			);
			onDone();
		} catch (refusal) {
			setError(refusal as Refusal);
			setBusy(false);
		}
	}

	const pictureAt = (hash: string) => `/p/${link}/api/papers/${hash}`;
	return (
		<div className="grid gap-8 md:grid-cols-[1fr_360px] md:gap-14">
			<ReadProposal
				proposal={proposal}
				client={page.person}
				pictureAt={pictureAt}
				services={
					<Services
						proposal={{ ...proposal, priced }}
						chosen={chosen}
						wrong={(key) => error?.of(`quantity.${key}`)}
						pictureAt={pictureAt}
						onChange={setChosen}
					/>
				}
			/>
			<Sum title="Your choice" priced={priced}>
				{error?.rest && (
					<div className="pt-3">
						<Alert>{error.message}</Alert>
					</div>
				)}
				{proposal.ranOut ? (
					<p className="pt-3 font-semibold">
						This proposal was valid until {proposal.validUntil}. Ask for a new
						one below.
					</p>
				) : (
					<Button
						kind="brand"
						size="big"
						className="mt-4 w-full"
						disabled={busy || Boolean(error)}
						onClick={accept}
					>
						{page.booking.signs
							? "Choose this and go on to sign"
							: "Choose this"}
					</Button>
				)}
				{onBack ? (
					<Button
						kind="word"
						className="mt-3 w-full text-center font-head text-[14.5px] font-semibold text-brand"
						onClick={onBack}
					>
						Keep what I chose
					</Button>
				) : (
					<Ask
						page={page}
						link={link}
						ranOut={proposal.ranOut}
						onDone={onDone}
					/>
				)}
			</Sum>
		</div>
	);
}
