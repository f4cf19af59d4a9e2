import type { SignedDto } from "../api/schema";

/** Who has signed a contract, and when. */
export function Signatures({
	of,
	className,
}: {
	of: readonly SignedDto[];
	className?: string;
}) {
	return of.map((signature) => (
		<p key={signature.side + signature.name} className={className}>
			Signed by {signature.name}, {signature.at}
		</p>
	));
}
