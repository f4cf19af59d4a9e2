import type { ClientPageDto } from "../api/schema";
import { Alert } from "../ui/Alert";
import { Button } from "../ui/Button";
import { usePay } from "./usePay";

/** What was agreed and billed, to keep; what is open can be paid here. */
export function Papers({ page, link }: { page: ClientPageDto; link: string }) {
	const open = page.booking.invoices.some((one) => !one.paid && !one.isCredit);
	return (
		<section id="papers">
			<h2 className="rule pb-1.5">To keep</h2>
			<ul>
				{page.booking.contract && (
					<li className="border-b border-hair py-2.5">
						<Button asChild kind="word">
							<a href={`/p/${link}/api/contract.pdf`}>Contract (PDF)</a>
						</Button>
						{page.booking.contract.signatures.map((signature) => (
							<div key={signature.side} className="under">
								Signed by {signature.name}, {signature.at}
							</div>
						))}
					</li>
				)}
				{page.booking.invoices.map((invoice) => (
					<li key={invoice.publicId} className="border-b border-hair py-2.5">
						<Button asChild kind="word">
							<a href={`/p/${link}/api/invoices/${invoice.publicId}.pdf`}>
								{invoice.isCredit ? "Credit note" : "Invoice"} {invoice.number}{" "}
								(PDF)
							</a>
						</Button>{" "}
						<span className="text-soft">
							{invoice.total}
							{invoice.isCredit
								? ""
								: invoice.paid
									? ", paid"
									: `, ${invoice.owed === invoice.total ? "" : `${invoice.owed} open, `}due ${invoice.due}`}
						</span>
					</li>
				))}
			</ul>
			{open && page.booking.step === "Done" && (
				<PayOpen page={page} link={link} />
			)}
		</section>
	);
}

function PayOpen({ page, link }: { page: ClientPageDto; link: string }) {
	const { pay, error, busy } = usePay(link);
	return (
		<div className="grid gap-2 pt-3">
			{page.booking.paysByCard && (
				<Button kind="brand" size="big" disabled={busy} onClick={pay}>
					Pay by card
				</Button>
			)}
			<p className="text-[14.5px] text-soft">
				{page.booking.paysByCard ? "Or by" : "By"} transfer, with the details on
				the invoice; it then takes a day or two until it is seen.
			</p>
			{error && <Alert>{error.message}</Alert>}
		</div>
	);
}
