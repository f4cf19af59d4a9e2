import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { answer, api } from "../../api/client";
import type { BillDraftDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { ShownPage } from "../../ui/Shown";
import { useUndo } from "../../ui/Undo";
import { useAct } from "../useAct";
import { useDraft } from "../useDraft";
import { BillLines } from "./BillLines";
import { BillSays } from "./BillSays";
import { BillSums } from "./BillSums";
import { ComeAgain, KeepAhead } from "./ComeAgain";
import { Issue } from "./Issue";

/** Writing an invoice by hand; kept as it is typed, numbered when it is issued. */
export default function BillPage() {
	const id = Number(useParams().id);
	const bill = useQuery({
		queryKey: ["bill", id],
		queryFn: () =>
			answer(api.GET("/api/projects/{id}/bill", { params: { path: { id } } })),
		staleTime: Number.POSITIVE_INFINITY,
		gcTime: 0,
	});
	return (
		<ShownPage query={bill}>
			{(data) => <Editor key={id} id={id} first={data} />}
		</ShownPage>
	);
}

function Editor({ id, first }: { id: number; first: BillDraftDto }) {
	const navigate = useNavigate();
	const undo = useUndo();
	const act = useAct();
	const kept = useDraft(
		first,
		(draft) => draft.bill,
		(edition, bill) =>
			answer(
				api.PUT("/api/projects/{id}/bill", {
					params: { path: { id } },
					body: { edition, bill },
				}),
			),
	);
	const { draft, value: bill, change, state, refusal } = kept;
	useEffect(() => {
		document.title = `Invoice, ${first.for.project}, Gesamt`;
	}, [first.for.project]);
	const ready = {
		project: id,
		draft,
		ready:
			state === "kept" &&
			draft.edition > 0 &&
			!draft.points.some((point) => point.blocks),
		onDone: () => navigate(`/projects/${id}`),
	};
	/** What is wrong at a field: as it was typed, else as it cannot be issued. */
	const wrong = (field: string) => refusal?.of(field);
	const discard = () =>
		act.run(async () => {
			await answer(
				api.DELETE("/api/projects/{id}/bill", { params: { path: { id } } }),
			);
			navigate(`/projects/${id}`);
			undo({
				words: "The invoice was thrown away.",
				undo: async () => {
					await answer(
						api.PUT("/api/projects/{id}/bill", {
							params: { path: { id } },
							body: { edition: 0, bill, of: first.for.of },
						}),
					);
					navigate(`/projects/${id}/bill`);
				},
			});
		});
	return (
		<main className="px-5 pb-10">
			<div className="flex flex-wrap items-end gap-x-4 gap-y-2 pt-4 pb-3">
				<h1>
					{first.for.of.changes === null ? "Invoice" : "Recurring invoice"}
				</h1>
				<p className="text-soft">
					for{" "}
					<Button asChild kind="word">
						<Link to={`/people/${first.for.person}`}>{first.for.client}</Link>
					</Button>
					,{" "}
					<Button asChild kind="word">
						<Link to={`/projects/${id}`}>{first.for.project}</Link>
					</Button>
					{first.for.interest && `, interest on ${first.for.interest}`}
				</p>
				<p role="status" className="text-soft">
					{draft.edition > 0 && state}
				</p>
				<div className="ml-auto flex gap-2">
					{draft.sums && state === "kept" && (
						<Button asChild>
							<a
								href={`/api/projects/${id}/bill/preview.pdf`}
								target="_blank"
								rel="noreferrer"
							>
								See it as it will be (PDF)
							</a>
						</Button>
					)}
					{draft.edition > 0 && (
						<Button disabled={act.busy} onClick={discard}>
							Throw it away
						</Button>
					)}
				</div>
			</div>
			<div className="grid gap-x-[22px] gap-y-6 lg:grid-cols-[1fr_386px]">
				<div className="grid content-start gap-5">
					<BillLines
						project={id}
						bill={bill}
						nets={draft.sums?.lines}
						wrong={wrong}
						onChange={change}
					/>
					<BillSays project={id} bill={bill} wrong={wrong} onChange={change} />
				</div>
				<aside
					className="grid content-start gap-4"
					aria-label="What it comes to"
				>
					<Refused of={refusal ?? act.refusal} />
					<BillSums draft={draft} />
					{draft.for.of.changes === null ? (
						<>
							<Issue {...ready} />
							{first.for.interest === null && <ComeAgain {...ready} />}
						</>
					) : (
						<KeepAhead {...ready} />
					)}
				</aside>
			</div>
		</main>
	);
}
