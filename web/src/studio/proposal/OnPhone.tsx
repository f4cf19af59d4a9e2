import { useQuery } from "@tanstack/react-query";
import { type CSSProperties, useState } from "react";
import { answer, api } from "../../api/client";
import { ReadProposal } from "../../client/ReadProposal";
import { Services } from "../../client/Services";
import { SumRows } from "../../client/Sum";
import { Button } from "../../ui/Button";
import { Shown } from "../../ui/Shown";
import { Window } from "../../ui/Window";
import { paperFileAt } from "./usePaperFile";

/** The draft as the client will see it on a phone: 390 pixels wide, to look at only. */
export function OnPhone({
	project,
	client,
	edition,
	brand,
}: {
	project: number;
	client: string;
	edition: number;
	brand: string;
}) {
	const [open, setOpen] = useState(false);
	return (
		<>
			<Button onClick={() => setOpen(true)}>On a phone</Button>
			<Window
				title="As it reads on a phone"
				open={open}
				onClose={() => setOpen(false)}
			>
				<Phone
					project={project}
					client={client}
					edition={edition}
					brand={brand}
				/>
			</Window>
		</>
	);
}

function Phone({
	project,
	client,
	edition,
	brand,
}: {
	project: number;
	client: string;
	edition: number;
	brand: string;
}) {
	const seen = useQuery({
		queryKey: ["draft", project, "as-client", edition],
		queryFn: () =>
			answer(
				api.GET("/api/projects/{id}/proposal/as-client", {
					params: { path: { id: project } },
				}),
			),
		retry: false,
	});
	return (
		<Shown query={seen}>
			{(proposal) => (
				<div
					className="client mx-auto w-[390px] max-w-full border border-hair bg-sheet p-5 text-[16px]"
					style={{ "--brand": brand } as CSSProperties}
					inert
				>
					<ReadProposal
						proposal={proposal}
						client={client}
						pictureAt={paperFileAt}
						services={
							<Services
								narrow
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
					<div className="bg-plaster p-4">
						<SumRows priced={proposal.priced} />
					</div>
				</div>
			)}
		</Shown>
	);
}
