import type { ClientPageDto } from "../api/schema";
import { Alert } from "../ui/Alert";
import { Button } from "../ui/Button";
import { Papers } from "./Papers";
import { usePay } from "./usePay";

type Props = { page: ClientPageDto; link: string };

/** Booking with the first payment. */
export function Book({ page, link }: Props) {
	const { pay, error, busy } = usePay(link);
	const invoice = page.booking.invoices.find((one) => !one.paid)!;
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
				{page.booking.paysByCard && (
					<Button
						kind="brand"
						size="big"
						className="mt-4 w-full"
						disabled={busy}
						onClick={pay}
					>
						Pay by card
					</Button>
				)}
				<p className="pt-3 text-[14.5px] text-soft">
					{page.booking.paysByCard ? "Or by" : "By"} transfer, with the details
					on the invoice; it then takes a day or two until it is seen.
				</p>
			</div>
			<div className="pt-6">
				<Papers page={page} link={link} />
			</div>
		</div>
	);
}

/** Everything is done: what was agreed, to keep. */
export function Done({ page, link }: Props) {
	const countersigned = page.booking.contract?.signatures.some(
		(signature) => signature.side === "studio",
	);
	return (
		<div role="status" className="max-w-xl py-4">
			<h1 className="mb-3 text-[28px]">{page.project} is booked</h1>
			<p>
				The contract is signed and the first payment is here.{" "}
				{countersigned
					? `${page.studio.owner} has signed as well.`
					: `${page.studio.owner} signs as well and writes to you.`}
			</p>
			<div className="pt-6">
				<Papers page={page} link={link} />
			</div>
		</div>
	);
}
