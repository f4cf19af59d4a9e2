import type { ClientPageDto } from "../api/schema";
import { Button } from "../ui/Button";
import { Signatures } from "./Signatures";

/** What was agreed and billed, to keep. */
export function Papers({ page, link }: { page: ClientPageDto; link: string }) {
	return (
		<section id="papers">
			<h2 className="rule pb-1.5">To keep</h2>
			<ul>
				{page.booking.kept.map((contract) => (
					<li key={contract.number} className="border-b border-hair py-2.5">
						<Button asChild kind="word">
							<a href={`/p/${link}/api/contracts/${contract.number}.pdf`}>
								{contract.title} (PDF)
							</a>
						</Button>
						{contract.voided && <span className="under block">void</span>}
						<Signatures of={contract.signatures} className="under" />
					</li>
				))}
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
		</section>
	);
}
