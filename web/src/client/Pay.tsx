import type { ClientPageDto } from "../api/schema";
import { Alert } from "../ui/Alert";
import { Button } from "../ui/Button";
import { usePay } from "./usePay";

/** What is open, the earliest due first, and the ways to pay it. */
export function Pay({ page, link }: { page: ClientPageDto; link: string }) {
	const { pay, error, busy } = usePay(link);
	const open = page.booking.invoices.filter(
		(one) => !one.paid && !one.isCredit,
	);
	if (open.length === 0) return null;
	return (
		<section
			id="pay"
			aria-label="To pay"
			className="mb-8 max-w-xl bg-plaster p-5"
		>
			{open.map((invoice) => (
				<div key={invoice.publicId} className="flex items-baseline gap-3 pb-1">
					<span>
						Invoice {invoice.number}, due {invoice.due}
					</span>
					<span className="num ml-auto text-[21px] font-[680] whitespace-nowrap">
						{invoice.owed}
					</span>
				</div>
			))}
			{error && <Alert>{error.message}</Alert>}
			{page.booking.paysByCard && (
				<Button
					kind="brand"
					size="big"
					className="mt-3 w-full"
					disabled={busy}
					onClick={pay}
				>
					Pay by card
				</Button>
			)}
			<p className="pt-3 text-[14.5px] text-soft">
				{page.booking.paysByCard ? "Or by" : "By"} transfer, with the details on
				the invoice; it then takes a day or two until it is seen.
			</p>
		</section>
	);
}
