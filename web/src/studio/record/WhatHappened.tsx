import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { Gate, HappenedSort, RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Choice, Choices } from "../../ui/Choice";
import { Refused } from "../../ui/Refused";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";
import { Details } from "./HappenedDetails";
import type { Said } from "./said";

const words: Record<HappenedSort, string> = {
	Fit: "It is a fit",
	Countersign: "I sign the contract",
	Call: "We spoke",
	NoAnswerNeeded: "It needs no answer",
	PriceAgreed: "We agreed a price outside",
	SignedOnPaper: "They signed on paper",
	Paid: "They paid",
	HandedOver: "I handed the work over",
	Approved: "They approved the work",
	Milestone: "A step is reached",
	Waived: "This gate is waived",
	Rest: "It rests",
	GoOn: "It goes on",
	NotAFit: "It is not a fit",
	Referred: "I referred it to a colleague",
	Lost: "They decided otherwise",
	GoneQuiet: "They went quiet",
	Cancelled: "It was cancelled",
	NotAnInquiry: "It is not an inquiry",
	TakenUp: "It is taken up again",
	Read: "I have read the answers: begin the follow-ups",
	BookedStraightAway: "They are booked straight away",
	NotWonAfterAll: "It is not won after all",
	FitTakenBack: "Whether it is a fit is not decided yet",
};

/** The likeliest answers; the others come when they are asked for. */
const shownAtFirst = 5;

const nothing: Said = {
	on: "",
	at: "",
	words: "",
	until: "",
	amount: "",
	tax: "",
	onBooking: "",
	means: "Transfer",
	invoice: "",
	file: "",
	credit: true,
	terms: false,
	ahead: false,
	recurring: "",
	colleague: "",
	letter: false,
	subject: "",
	body: "",
};

/** What an answer begins with: as much of it as the record knows. */
function begin(record: RecordDto, sort: HappenedSort): Said {
	const first = record.sheet.toPay.invoices[0];
	return {
		...nothing,
		tax: record.path.happen.tax,
		onBooking: record.path.happen.onBooking,
		invoice: first ? String(first.id) : "",
		amount:
			sort === "Paid" ? (first?.owed ?? record.sheet.toPay.ahead ?? "") : "",
		words:
			sort === "Milestone"
				? (record.path.happen.milestones[0] ?? "")
				: sort === "Countersign"
					? record.path.happen.owner
					: "",
		file: String(record.sheet.work.files.at(-1)?.id ?? ""),
	};
}

/** How the owner records what came outside Gesamt, and decides. */
export default function WhatHappened({
	record,
	open,
	first,
	onClose,
}: {
	record: RecordDto;
	open: boolean;
	/** What stands first and is chosen as it opens: the likeliest answer where nothing is said. */
	first?: HappenedSort;
	onClose: () => void;
}) {
	const can = record.path.happen.can.map((one) => one.sort);
	const likeliest = first ?? can[0]!;
	const [sort, setSort] = useState(likeliest);
	const [said, setSaid] = useState(() => begin(record, likeliest));
	const [all, setAll] = useState(false);
	const act = useAct();
	const offered = [likeliest, ...can.filter((one) => one !== likeliest)];
	function choose(one: HappenedSort) {
		setSort(one);
		setSaid(begin(record, one));
	}

	const ends = record.path.happen.can.some(
		(one) => one.sort === sort && one.ends,
	);
	async function say(event: FormEvent) {
		event.preventDefault();
		const done = await act.run(() =>
			answer(
				api.POST("/api/projects/{id}/happened", {
					params: { path: { id: record.id } },
					body: {
						sort,
						on: said.on || null,
						at: said.at || null,
						words: said.words || null,
						until: said.until || null,
						amount: said.amount || null,
						tax: said.tax,
						onBooking: said.onBooking,
						means: sort === "Paid" ? said.means : null,
						invoice: said.invoice ? Number(said.invoice) : null,
						file: said.file ? Number(said.file) : null,
						credit:
							ends && said.credit && record.sheet.toPay.invoices.length > 0,
						ahead: sort === "Paid" && said.ahead,
						terms: sort === "Cancelled" && said.terms,
						recurring: said.recurring || null,
						colleague: said.colleague ? Number(said.colleague) : null,
						subject: said.letter ? said.subject : null,
						body: said.letter ? said.body : null,
					},
				}),
			),
		);
		if (done) onClose();
	}
	return (
		<Window title="What happened?" open={open} onClose={onClose}>
			<form onSubmit={say} className="grid gap-3">
				<Choices
					label="What happened"
					hidden
					className=""
					value={sort}
					onChange={(one) => choose(one as HappenedSort)}
				>
					{offered.slice(0, all ? undefined : shownAtFirst).map((one) => (
						<Choice
							key={one}
							value={one}
							className="border-b border-hair py-1.5"
						>
							{one === "Waived"
								? `The gate ${record.path.stage as Gate} is waived`
								: words[one]}
						</Choice>
					))}
				</Choices>
				{!all && offered.length > shownAtFirst && (
					<p>
						<Button kind="word" onClick={() => setAll(true)}>
							something else, {offered.length - shownAtFirst} more
						</Button>
					</p>
				)}
				<Details
					sort={sort}
					record={record}
					said={said}
					wrong={(field) => act.refusal?.of(field)}
					onChange={(part) => setSaid({ ...said, ...part })}
				/>
				<Refused of={act.refusal} />
				<Button kind="go" type="submit" disabled={act.busy}>
					Record: {words[sort]}
				</Button>
			</form>
		</Window>
	);
}
