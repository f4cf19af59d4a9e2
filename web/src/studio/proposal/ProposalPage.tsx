import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { answer, api } from "../../api/client";
import type { DraftDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { ShownPage } from "../../ui/Shown";
import { useUndo } from "../../ui/Undo";
import { Before } from "./Before";
import { Begin } from "./Begin";
import { OnPhone } from "./OnPhone";
import { Page } from "./Page";
import { SendProposal } from "./SendProposal";
import { Sums } from "./Sums";
import { useAutosave } from "./useAutosave";

/** Writing a proposal on the page its reader will have; kept as it is typed. */
export default function ProposalPage() {
	const id = Number(useParams().id);
	const draft = useQuery({
		queryKey: ["draft", id],
		queryFn: () =>
			answer(
				api.GET("/api/projects/{id}/proposal", { params: { path: { id } } }),
			),
		staleTime: Number.POSITIVE_INFINITY,
		gcTime: 0,
	});
	return (
		<ShownPage query={draft}>
			{(data) => <Editor key={id} id={id} first={data} />}
		</ShownPage>
	);
}

function Editor({ id, first }: { id: number; first: DraftDto }) {
	const navigate = useNavigate();
	const undo = useUndo();
	const saved = useAutosave(id, first);
	const { draft, offer, state, refusal } = saved;
	useEffect(() => {
		document.title = `Proposal, ${first.project}, Gesamt`;
	}, [first.project]);
	return (
		<main className="px-5 pb-10">
			<div className="flex flex-wrap items-end gap-x-4 gap-y-2 pt-4 pb-3">
				<h1>{draft.amends ? "Amendment" : "Proposal"}</h1>
				<p className="text-soft">
					for {first.client},{" "}
					<Button asChild kind="word">
						<Link to={`/projects/${id}`}>{first.project}</Link>
					</Button>
					{draft.sent && `, version ${draft.sent.number + 1}`}
				</p>
				<p role="status" className="text-soft">
					{state}
				</p>
				{!draft.amends && (
					<div className="ml-auto flex gap-2">
						<OnPhone
							project={id}
							client={first.client}
							edition={draft.edition}
							brand={first.brand}
						/>
						<Begin
							project={id}
							name={offer.title}
							onBegun={(begun) => {
								const before = offer;
								saved.take(begun);
								undo({
									words: "Begun anew.",
									undo: async () => saved.change(before),
								});
							}}
						/>
					</div>
				)}
			</div>
			<div className="grid gap-x-[22px] gap-y-6 lg:grid-cols-[1fr_386px]">
				<Page project={id} saved={saved} />
				<aside
					className="grid content-start gap-4"
					aria-label="What it comes to"
				>
					<Refused of={refusal} />
					<Sums draft={draft} />
					<Before draft={draft} project={id} onAmend={saved.take} />
					<SendProposal
						project={id}
						ready={
							!draft.closed &&
							!draft.points.some((point) => point.blocks && !point.done) &&
							state === "kept"
						}
						kept={state === "kept"}
						edition={draft.edition}
						amends={Boolean(draft.amends)}
						onSent={() => navigate(`/projects/${id}`)}
					/>
				</aside>
			</div>
		</main>
	);
}
