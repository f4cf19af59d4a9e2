import type { ClientPageDto } from "../api/schema";
import { Papers } from "./Papers";
import { Pay } from "./Pay";

type Props = { page: ClientPageDto; link: string };

/** Booking with the first payment. */
export function Book({ page, link }: Props) {
	return (
		<div className="max-w-xl">
			<h1 className="mt-1 mb-2">Book {page.project}</h1>
			<p className="pb-4">
				The contract is signed. Your date is booked as soon as the first payment
				is here.
			</p>
			<Pay page={page} link={link} />
			<Papers page={page} link={link} />
		</div>
	);
}

/** Everything is done: what was agreed, to keep. */
export function Done({ page, link }: Props) {
	const countersigned = page.booking.contract?.signatures.some(
		(signature) => signature.side === "studio",
	);
	return (
		<div role="status" className="max-w-xl">
			<p className="pb-6">
				<b className="font-[650]">{page.project} is booked.</b> The contract is
				signed and the first payment is here.{" "}
				{countersigned
					? `${page.studio.owner} has signed as well.`
					: `${page.studio.owner} signs as well and writes to you.`}
			</p>
			<Papers page={page} link={link} />
		</div>
	);
}
