import { useState } from "react";
import type { ClientPageDto } from "../api/schema";
import { Alert } from "../ui/Fields";
import { post } from "../ui/http";

type Props = { page: ClientPageDto; base: string };

/** Booking with the first payment. */
export function Book({ page, base }: Props) {
	const [error, setError] = useState<Error>();
	const [busy, setBusy] = useState(false);
	const invoice = page.invoices.find((one) => !one.paid)!;
	async function pay() {
		setBusy(true);
		try {
			const { address } = await post<{ address: string }>(`${base}/pay`);
			location.assign(address);
		} catch (refusal) {
			setError(refusal as Error);
			setBusy(false);
		}
	}
	return (
		<div className="max-w-xl">
			<h1 className="mt-1 mb-2">Book {page.project}</h1>
			<p className="pb-4">
				The contract is signed. Your date is booked as soon as the first payment
				is here.
			</p>
			<div className="bg-plaster p-5">
				<div className="flex items-baseline gap-3">
					<span>
						Invoice {invoice.number}, due {invoice.due}
					</span>
					<span className="num ml-auto text-[21px] font-[680] whitespace-nowrap">
						{invoice.owed}
					</span>
				</div>
				{error && <Alert>{error.message}</Alert>}
				{page.paysByCard && (
					<button
						type="button"
						className="btn btn-brand mt-4 w-full py-3 text-[16px]"
						disabled={busy}
						onClick={pay}
					>
						Pay by card
					</button>
				)}
				<p className="pt-3 text-[14.5px] text-soft">
					{page.paysByCard ? "Or by" : "By"} transfer, with the details on the
					invoice; it then takes a day or two until it is seen.
				</p>
			</div>
			<Papers page={page} base={base} />
		</div>
	);
}

/** Everything is done: what was agreed, to keep. */
export function Done({ page, base }: Props) {
	const countersigned = page.contract?.signatures.some(
		(signature) => signature.side === "studio",
	);
	return (
		<div role="status" className="max-w-xl py-4">
			<h1 className="mb-3 text-[28px]">{page.project} is booked</h1>
			<p>
				The contract is signed and the first payment is here.{" "}
				{countersigned
					? `${page.owner} has signed as well.`
					: `${page.owner} signs as well and writes to you.`}
			</p>
			<Papers page={page} base={base} />
		</div>
	);
}

function Papers({ page, base }: Props) {
	return (
		<section className="pt-6">
			<h2 className="rule pb-1.5">To keep</h2>
			<ul>
				{page.contract && (
					<li className="border-b border-hair py-2.5">
						<a className="link" href={`${base}/contract.pdf`}>
							Contract (PDF)
						</a>
						{page.contract.signatures.map((signature) => (
							<div key={signature.side} className="under">
								Signed by {signature.name}, {signature.at}
							</div>
						))}
					</li>
				)}
				{page.invoices.map((invoice) => (
					<li key={invoice.publicId} className="border-b border-hair py-2.5">
						<a
							className="link"
							href={`${base}/invoices/${invoice.publicId}.pdf`}
						>
							Invoice {invoice.number} (PDF)
						</a>{" "}
						<span className="text-soft">
							{invoice.total}, {invoice.paid ? "paid" : `due ${invoice.due}`}
						</span>
					</li>
				))}
			</ul>
		</section>
	);
}
