import type { ClientPageDto } from "../api/schema";
import { Papers } from "./Papers";

/** Everything is done: what was agreed, to keep. */
export function Done({ page, link }: { page: ClientPageDto; link: string }) {
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
