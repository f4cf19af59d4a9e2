import type { CSSProperties } from "react";
import type { ProposalPageDto } from "../../api/schema";
import { ReadProposal } from "../../client/ReadProposal";
import { Services } from "../../client/Services";
import { SumRows } from "../../client/Sum";
import { paperFileAt } from "./usePaperFile";

/** A proposal as its client reads it, to look at only. */
export function AsRead({
	proposal,
	client,
	brand,
	narrow,
}: {
	proposal: ProposalPageDto;
	client: string;
	brand?: string;
	/** As wide as a phone. */
	narrow?: boolean;
}) {
	return (
		<div
			className={`client border border-hair bg-sheet p-5 text-[16px] ${narrow ? "mx-auto w-[390px] max-w-full" : "grid gap-8 md:grid-cols-[1fr_340px] md:px-9"}`}
			style={{ "--brand": brand } as CSSProperties}
			inert
		>
			<ReadProposal
				proposal={proposal}
				client={client}
				pictureAt={paperFileAt}
				services={
					<Services
						narrow={narrow}
						proposal={proposal}
						chosen={{
							keys: proposal.priced.chosen,
							quantities: proposal.priced.quantities,
						}}
						pictureAt={paperFileAt}
						onChange={() => undefined}
					/>
				}
			/>
			<div className={narrow ? "bg-plaster p-4" : "self-start bg-plaster p-5"}>
				<SumRows priced={proposal.priced} />
			</div>
		</div>
	);
}
