import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { answer, api } from "../../api/client";
import type { DraftDto, OfferDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { DateField } from "../../ui/DateField";
import { Fold } from "../../ui/Fold";
import { Refused } from "../../ui/Refused";
import { Shown } from "../../ui/Shown";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { Lines } from "./Lines";
import { Plan } from "./Plan";
import { SendProposal } from "./SendProposal";
import { Sums } from "./Sums";
import { useAutosave } from "./useAutosave";

/** Writing a proposal: services, choices, extras, payments, contract; kept as it is typed. */
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
		<Shown query={draft}>
			{(data) => <Editor key={id} id={id} first={data} />}
		</Shown>
	);
}

function Editor({ id, first }: { id: number; first: DraftDto }) {
	const navigate = useNavigate();
	const { draft, offer, contract, change, setContract, state, refusal } =
		useAutosave(id, first);
	useEffect(() => {
		document.title = `Proposal, ${first.project}, Gesamt`;
	}, [first.project]);
	const set = (part: Partial<OfferDto>) => change({ ...offer, ...part });
	return (
		<main className="px-5 pb-10">
			<div className="flex flex-wrap items-end gap-x-4 gap-y-1 pt-4 pb-3">
				<h1>Proposal</h1>
				<p className="text-soft">
					for {first.client},{" "}
					<Button asChild kind="word">
						<Link to={`/projects/${id}`}>{first.project}</Link>
					</Button>
				</p>
				<p role="status" className="ml-auto text-soft">
					{state}
				</p>
			</div>
			<div className="grid gap-x-[26px] gap-y-6 lg:grid-cols-[1fr_386px]">
				<div className="grid content-start gap-5">
					<div className="grid gap-3 md:grid-cols-[1fr_190px]">
						<TextField
							label="Title"
							value={offer.title}
							wrong={refusal?.of("title")}
							onChange={(e) => set({ title: e.target.value })}
						/>
						<DateField
							label="Valid until"
							value={offer.validUntil}
							wrong={refusal?.of("validUntil")}
							onChange={(day) => day && set({ validUntil: day })}
						/>
					</div>
					<TextArea
						label="What it is about"
						rows={2}
						value={offer.intro}
						onChange={(e) => set({ intro: e.target.value })}
					/>
					<Lines
						project={id}
						lines={offer.lines}
						onChange={(lines) => set({ lines })}
					/>
					<Plan
						plan={offer.plan}
						mainDate={first.mainDate}
						onChange={(plan) => set({ plan })}
					/>
					<Fold
						line={
							<b className="font-head font-[650]">Contract that goes with it</b>
						}
					>
						<div className="pt-2">
							<TextArea
								label="Contract text"
								rows={14}
								value={contract}
								wrong={refusal?.of("text")}
								hint="Blanks in square brackets are filled from the record and the choice when it is accepted."
								onChange={(e) => setContract(e.target.value)}
							/>
						</div>
					</Fold>
				</div>
				<aside
					className="grid content-start gap-4"
					aria-label="What it comes to"
				>
					<Refused of={refusal} />
					<Sums draft={draft} />
					<SendProposal
						project={id}
						ready={!draft.missing && state === "kept"}
						missing={draft.missing}
						edition={draft.edition}
						onSent={() => navigate(`/projects/${id}`)}
					/>
				</aside>
			</div>
		</main>
	);
}
