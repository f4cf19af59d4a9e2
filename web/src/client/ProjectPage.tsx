import { useCallback, useEffect, useRef, useState } from "react";
import { answer, api } from "../api/client";
import type { ClientPageDto, ClientStep } from "../api/schema";
import { Fold } from "../ui/Fold";
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

/** What is still to come, in a sentence. */
const ahead: Partial<Record<ClientStep, string>> = {
	Choose:
		"You choose, then read and sign the contract, then book with the first payment.",
	Sign: "What is left: your signature, then the first payment.",
	Book: "What is left: the first payment.",
};

/** One client's page of one project: one thing to do at a time. */
export default function ProjectPage({ link }: { link: string }) {
	const {
		data: page,
		error,
		reload,
	} = useLoaded(
		useCallback(
			() => answer(api.GET("/p/{link}/api", { params: { path: { link } } })),
			[link],
		),
	);
	const step = page?.booking.step;
	// whoever has chosen may go back to it until the contract is signed
	const [again, setAgain] = useState(false);
	const choosing = step === "Choose" || (step === "Sign" && again);
	const hash = page?.booking.contract?.hash;
	useEffect(() => setAgain(false), [hash]);
	useTop(step && `${step} ${choosing}`);

	// coming back from the card page, the payment is asked after at once
	useEffect(() => {
		if (step === "Book" || step === "Done")
			answer(
				api.POST("/p/{link}/api/settle", { params: { path: { link } } }),
			).then(reload, () => undefined);
	}, [link, step, reload]);
	useEffect(() => {
		if (page) document.title = `${page.project}, ${page.studio.name}`;
	}, [page]);

	if (error) return <Failed error={error} />;
	if (!page) return <Notice title="One moment" />;
	return (
		<Frame
			studio={page.studio.name}
			brand={page.studio.brand}
			logo={page.studio.logo}
			right={
				page.booking.proposal && step === "Choose"
					? `Proposal for ${page.person}, valid until ${page.booking.proposal.validUntil}`
					: `For ${page.person}`
			}
		>
			{page.meetings.chooseTime && step === "Nothing" ? (
				<PickTime link={link} onDone={reload} />
			) : (
				<>
					<Meetings page={page} link={link} reload={reload} />
					<BriefPart page={page} link={link} reload={reload} />
				</>
			)}
			{(step === "Nothing" || step === "Done") && (
				<FormsPart page={page} link={link} reload={reload} />
			)}
			{page.meetings.chooseTime && step !== "Nothing" && (
				<Fold
					className="mb-6 bg-plaster p-4"
					line={<b>Choose a time: {page.meetings.chooseTime}</b>}
				>
					<PickTime link={link} onDone={reload} />
				</Fold>
			)}
			{ahead[step!] && (
				<p className="pb-2 text-[14.5px] text-soft">{ahead[step!]}</p>
			)}
			{choosing && (
				<Choose
					page={page}
					link={link}
					onDone={reload}
					onBack={step === "Sign" ? () => setAgain(false) : undefined}
				/>
			)}
			{step === "Sign" && !choosing && (
				<Sign
					page={page}
					link={link}
					onDone={reload}
					onBack={page.booking.proposal ? () => setAgain(true) : undefined}
				/>
			)}
			{step === "Book" && <Book page={page} link={link} />}
			{step === "Done" &&
				(hasParts(page) ? (
					<Parts page={page} link={link} reload={reload} />
				) : (
					<Done page={page} link={link} />
				))}
			{step === "Nothing" && hasParts(page) && (
				<Parts page={page} link={link} reload={reload} />
			)}
			{step === "Nothing" && !hasParts(page) && !shows(page) && (
				<div className="max-w-xl py-6">
					<h1 className="mb-3">{page.project}</h1>
					<p>
						There is nothing for you to do at the moment. {page.studio.owner}{" "}
						writes to you when there is.
					</p>
				</div>
			)}
		</Frame>
	);
}

/** A new step begins at its beginning, for the eye and for a screen reader. */
function useTop(step: string | undefined) {
	const before = useRef(step);
	useEffect(() => {
		if (before.current && step && before.current !== step) {
			window.scrollTo(0, 0);
			const heading = document.querySelector<HTMLElement>("main h1");
			heading?.setAttribute("tabindex", "-1");
			heading?.focus({ preventScroll: true });
		}
		before.current = step;
	}, [step]);
}

/** Whether something else stands on the page already. */
const shows = (page: ClientPageDto) =>
	Boolean(
		page.meetings.chooseTime ||
			page.parts.brief ||
			page.meetings.all.length > 0 ||
			page.parts.forms.length > 0,
	);

const hasParts = (page: ClientPageDto) =>
	Boolean(
		page.parts.whole ||
			page.parts.drafts ||
			page.parts.files ||
			page.parts.help,
	);
