import type { ReactNode } from "react";
import type { ProposalPageDto, ReadPartDto } from "../api/schema";
import { Blocks } from "../ui/Blocks";
import { Button } from "../ui/Button";
import { Fold } from "../ui/Fold";
import { Differences } from "./Differences";

/** A proposal as it is read, its parts in their order, with the services where they stand. */
export function ReadProposal({
	proposal,
	client,
	pictureAt,
	services,
}: {
	proposal: ProposalPageDto;
	client: string;
	pictureAt: (hash: string) => string;
	services: ReactNode;
}) {
	return (
		<article>
			<h1 className="mt-1 text-[28px] md:text-[32px]">{proposal.title}</h1>
			<p className="mb-3 text-soft">
				for {client}, valid until {proposal.validUntil}
				{proposal.gross ? "; prices with tax" : "; prices before tax"}
			</p>
			{proposal.before.length > 0 && (
				<Fold
					className="mb-4 bg-plaster p-3"
					line={
						<b className="font-head font-[650]">
							Version {proposal.version}: what is different now
						</b>
					}
				>
					<Differences of={proposal.before} />
				</Fold>
			)}
			{proposal.file && (
				<p className="mb-4">
					<Button asChild kind="word">
						<a href={pictureAt(proposal.file.hash)}>
							Read the proposal: {proposal.file.name} (PDF)
						</a>
					</Button>
				</p>
			)}
			{proposal.parts.map((part, i) =>
				part.sort === "Services" ? (
					<div key={i}>{services}</div>
				) : (
					<Part key={i} part={part} pictureAt={pictureAt} />
				),
			)}
		</article>
	);
}

function Part({
	part,
	pictureAt,
}: {
	part: ReadPartDto;
	pictureAt: (hash: string) => string;
}) {
	if (part.sort === "Picture")
		return (
			<figure className="my-4">
				<img
					src={pictureAt(part.picture!)}
					alt={part.text
						.map((block) => block.runs.map((run) => run.text))
						.join(" ")}
					className="max-h-[420px] max-w-full"
				/>
				{part.text.length > 0 && (
					<figcaption className="pt-1 text-[14.5px] text-soft">
						<Blocks of={part.text} />
					</figcaption>
				)}
			</figure>
		);
	return (
		<section className="max-w-xl pb-3">
			{part.heading && <h2 className="pt-2 pb-1">{part.heading}</h2>}
			<Blocks of={part.text} />
			{part.days.length > 0 && (
				<dl>
					{part.days.map((day, i) => (
						<div
							key={i}
							className="grid gap-x-4 border-t border-hair py-1.5 sm:grid-cols-[11em_1fr]"
						>
							<dt className="num text-soft">{day.when}</dt>
							<dd>{day.words}</dd>
						</div>
					))}
				</dl>
			)}
		</section>
	);
}
