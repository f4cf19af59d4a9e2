import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import type { DraftDto, OfferDto, SaveDraftDto } from "../../api/schema";
import { AmountRow } from "../../ui/AmountRow";
import { Alert, TextArea, TextField } from "../../ui/Fields";
import { get, put, type Refusal } from "../../ui/http";
import { Shown } from "../../ui/Shown";
import { Lines } from "./Lines";
import { Plan } from "./Plan";
import { SendProposal } from "./SendProposal";

/** Writing a proposal: services, choices, extras, payments, contract; kept as it is typed. */
export default function ProposalPage() {
	const id = useParams().id!;
	const draft = useQuery({
		queryKey: ["draft", id],
		queryFn: () => get<DraftDto>(`/api/projects/${id}/proposal`),
		staleTime: Number.POSITIVE_INFINITY,
		gcTime: 0,
	});
	return (
		<Shown query={draft}>
			{(data) => <Editor key={id} id={id} first={data} />}
		</Shown>
	);
}

function Editor({ id, first }: { id: string; first: DraftDto }) {
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
					<Link className="link" to={`/projects/${id}`}>
						{first.project}
					</Link>
				</p>
				<p role="status" className="ml-auto text-soft">
					{state}
				</p>
			</div>
			{refusal && (
				<div className="pb-3">
					<Alert>{refusal.message}</Alert>
				</div>
			)}
			<div className="grid gap-x-[26px] gap-y-6 lg:grid-cols-[1fr_386px]">
				<div className="grid content-start gap-5">
					<div className="grid gap-3 md:grid-cols-[1fr_190px]">
						<TextField
							label="Title"
							value={offer.title}
							wrong={refusal?.of("title")}
							onChange={(e) => set({ title: e.target.value })}
						/>
						<TextField
							label="Valid until"
							type="date"
							value={offer.validUntil}
							wrong={refusal?.of("validUntil")}
							onChange={(e) =>
								e.target.value && set({ validUntil: e.target.value })
							}
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
					<details>
						<summary className="font-head font-[650]">
							Contract that goes with it
						</summary>
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
					</details>
				</div>
				<aside
					className="grid content-start gap-4"
					aria-label="What it comes to"
				>
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

function Sums({ draft }: { draft: DraftDto }) {
	const priced = draft.priced;
	return (
		<section className="panel p-4">
			<h2 className="pb-1.5">As suggested</h2>
			{draft.missing && <p className="font-[650]">{draft.missing}</p>}
			{priced && (
				<dl className="text-[14.3px]">
					{priced.lines.map((line) => (
						<AmountRow key={line.words} label={line.words} amount={line.net} />
					))}
					<AmountRow label="Net" amount={priced.net} quiet />
					{priced.taxes.map((tax) => (
						<AmountRow
							key={tax.label}
							label={tax.label}
							amount={tax.amount}
							quiet
						/>
					))}
					<div className="mt-1 flex border-t-[1.5px] border-ink pt-1.5 font-head text-[17px] font-[680]">
						<dt>Total</dt>
						<dd className="num ml-auto">{priced.total}</dd>
					</div>
					{priced.instalments.map((part) => (
						<AmountRow
							key={part.label}
							label={part.label}
							amount={part.amount}
						/>
					))}
				</dl>
			)}
		</section>
	);
}

/** Keeps the draft a moment after the last change; a stale save keeps this text and says so. */
function useAutosave(id: string, first: DraftDto) {
	const [draft, setDraft] = useState(first);
	const [offer, setOffer] = useState(first.offer);
	const [contract, setContract] = useState(first.contract);
	const [state, setState] = useState<"kept" | "keeping" | "not kept yet">(
		"kept",
	);
	const [refusal, setRefusal] = useState<Refusal>();
	const edition = useRef(first.edition);
	const saved = useRef({ offer: first.offer, contract: first.contract });

	useEffect(() => {
		if (saved.current.offer === offer && saved.current.contract === contract)
			return;
		setState("keeping");
		const timer = setTimeout(async () => {
			const save: SaveDraftDto = { edition: edition.current, offer, contract };
			try {
				const kept = await put<DraftDto>(`/api/projects/${id}/proposal`, save);
				edition.current = kept.edition;
				saved.current = { offer, contract };
				setDraft(kept);
				setRefusal(undefined);
				setState("kept");
			} catch (error) {
				const refused = error as Refusal;
				// written in another window: the next save is meant to replace it
				const theirs = refused.theirs as DraftDto | undefined;
				if (theirs) edition.current = theirs.edition;
				setRefusal(refused);
				setState("not kept yet");
			}
		}, 400);
		return () => clearTimeout(timer);
	}, [id, offer, contract]);

	return {
		draft,
		offer,
		contract,
		change: setOffer,
		setContract,
		state,
		refusal,
	};
}
