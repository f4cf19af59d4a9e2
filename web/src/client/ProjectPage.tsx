import { useEffect } from "react";
import type { ClientPageDto, ClientStep } from "../api/schema";
import { post } from "../ui/http";
import { Book, Done } from "./Book";
import { BriefPart } from "./BriefPart";
import { Choose } from "./Choose";
import { FormsPart } from "./FormsPart";
import { Failed, Frame, Notice } from "./Frame";
import { Meetings } from "./Meetings";
import { Parts } from "./Parts";
import { PickTime } from "./PickTime";
import { Sign } from "./Sign";
import { useLoaded } from "./useLoaded";

const steps: { step: ClientStep; words: string }[] = [
	{ step: "Choose", words: "Choose" },
	{ step: "Sign", words: "Sign" },
	{ step: "Book", words: "Book with the first payment" },
];

/** One client's page of one project: one thing to do at a time. */
export function ProjectPage({ link }: { link: string }) {
	const base = `/p/${link}/api`;
	const { data: page, error, reload } = useLoaded<ClientPageDto>(base);
	const step = page?.step;

	// coming back from the card page, the payment is asked after at once
	useEffect(() => {
		if (step === "Book" || step === "Done")
			post(`${base}/settle`).then(reload, () => undefined);
	}, [base, step, reload]);
	useEffect(() => {
		if (page) document.title = `${page.project}, ${page.studio}`;
	}, [page]);

	if (error) return <Failed error={error} />;
	if (!page) return <Notice title="One moment" />;
	return (
		<Frame
			studio={page.studio}
			brand={page.brand}
			logo={page.logo}
			right={
				page.proposal
					? `Proposal for ${page.person}, valid until ${page.proposal.validUntil}`
					: `For ${page.person}`
			}
		>
			{page.chooseTime && step === "Nothing" ? (
				<PickTime base={base} onDone={reload} />
			) : (
				<>
					<Meetings page={page} base={base} reload={reload} />
					<BriefPart page={page} base={base} reload={reload} />
				</>
			)}
			{(step === "Nothing" || step === "Done") && (
				<FormsPart page={page} base={base} reload={reload} />
			)}
			{page.chooseTime && step !== "Nothing" && (
				<details className="mb-6 bg-plaster p-4">
					<summary className="font-[650]">
						Choose a time: {page.chooseTime}
					</summary>
					<PickTime base={base} onDone={reload} />
				</details>
			)}
			{step !== "Nothing" && step !== "Done" && <Steps present={step!} />}
			{step === "Choose" && <Choose page={page} base={base} onDone={reload} />}
			{step === "Sign" && <Sign page={page} base={base} onDone={reload} />}
			{step === "Book" && <Book page={page} base={base} />}
			{step === "Done" &&
				(hasParts(page) ? (
					<Parts page={page} base={base} reload={reload} />
				) : (
					<Done page={page} base={base} />
				))}
			{step === "Nothing" && hasParts(page) && (
				<Parts page={page} base={base} reload={reload} />
			)}
			{step === "Nothing" && !hasParts(page) && !shows(page) && (
				<div className="max-w-xl py-6">
					<h1 className="mb-3">{page.project}</h1>
					<p>
						There is nothing for you to do at the moment. {page.owner} writes to
						you when there is.
					</p>
				</div>
			)}
		</Frame>
	);
}

/** Whether something else stands on the page already. */
const shows = (page: ClientPageDto) =>
	Boolean(
		page.chooseTime ||
			page.brief ||
			page.meetings.length > 0 ||
			page.forms.length > 0,
	);

const hasParts = (page: ClientPageDto) =>
	Boolean(page.whole || page.drafts || page.files || page.help);

function Steps({ present }: { present: ClientStep }) {
	const at = steps.findIndex((one) => one.step === present);
	return (
		<ol className="flex flex-wrap gap-x-6 gap-y-1 pb-2 font-head text-[14.5px] font-semibold">
			{steps.map((one, i) => (
				<li
					key={one.step}
					aria-current={i === at ? "step" : undefined}
					className={`flex items-center gap-2 ${i === at ? "text-brand" : "text-soft"}`}
				>
					<span
						className={`inline-block size-2.5 border-[1.5px] border-current ${i <= at ? "bg-current" : ""}`}
					/>
					{one.words}
					{i < at && <span className="sr-only"> (done)</span>}
				</li>
			))}
		</ol>
	);
}
