import { lazy, type ReactNode, useEffect, useState } from "react";
import type { ClientPageDto } from "../api/schema";
import { Button } from "../ui/Button";
import { Fold } from "../ui/Fold";
import { Choose } from "./Choose";
import { Later } from "./Later";
import { Papers } from "./Papers";
import { Sign } from "./Sign";
import { Signatures } from "./Signatures";
import { SumRows } from "./Sum";

const Pay = lazy(() => import("./Pay"));

/** The way to a booking on one page that unfolds: the choice stays in sight, the contract opens under it, then the signature, then the payment. */
export default function Booking({
	page,
	link,
	onDone,
}: {
	page: ClientPageDto;
	link: string;
	onDone: () => void;
}) {
	const { step, contract, proposal, toCome } = page.booking;
	// whoever has chosen may go back to it until the contract is signed
	const [again, setAgain] = useState(false);
	const hash = contract?.hash;
	useEffect(() => setAgain(false), [hash]);
	const choosing = step === "Choose" || (step === "Sign" && again);
	if (choosing)
		return (
			<>
				<p className="pb-3 text-soft">{toCome}</p>
				<Choose
					page={page}
					link={link}
					onDone={onDone}
					onBack={step === "Sign" ? () => setAgain(false) : undefined}
				/>
			</>
		);
	return (
		<div className="grid gap-6">
			<div>
				<h1 className="mt-1">{page.project}</h1>
				<p className="text-soft">{toCome}</p>
			</div>
			{contract?.priced && (
				<Said
					title={contract.amends ? "All of it from then on" : "Your choice"}
					open={wide() && !contract.amends}
					aside={contract.priced.total}
					act={
						step === "Sign" &&
						proposal && (
							<Button onClick={() => setAgain(true)}>
								Go back and choose again
							</Button>
						)
					}
				>
					<SumRows priced={contract.priced} />
				</Said>
			)}
			{step === "Sign" && <Sign page={page} link={link} onDone={onDone} />}
			{step === "Book" && (
				<>
					{contract && (
						<Said
							title="The contract"
							aside={
								contract.signatures.length > 0 ? "signed" : "signed on paper"
							}
							act={
								<Button asChild>
									<a href={`/p/${link}/api/contract.pdf`}>Contract (PDF)</a>
								</Button>
							}
						>
							<Signatures of={contract.signatures} />
						</Said>
					)}
					<section className="max-w-xl">
						<h2 className="pb-2">The first payment</h2>
						<p className="pb-4">Your date is booked as soon as it is here.</p>
						<Later>
							<Pay page={page} link={link} onDone={onDone} />
						</Later>
						<Papers page={page} link={link} />
					</section>
				</>
			)}
		</div>
	);
}

/** A phone shows one thing at a time. */
const wide = () => window.matchMedia("(min-width: 768px)").matches;

/** What is done, in a line that opens. */
function Said({
	title,
	aside,
	act,
	open,
	children,
}: {
	title: string;
	aside: string;
	act: ReactNode;
	/** Whether it begins open. */
	open?: boolean;
	children: ReactNode;
}) {
	return (
		<section aria-label={title} className="max-w-3xl bg-plaster p-4">
			<Fold
				begin={open}
				line={
					<span className="flex flex-1 flex-wrap items-baseline gap-x-3">
						<b className="font-head font-[650]">{title}</b>
						<span className="num text-soft">{aside}</span>
					</span>
				}
			>
				<div className="max-w-xl pt-3">{children}</div>
			</Fold>
			{act && <div className="pt-3">{act}</div>}
		</section>
	);
}
