import { lazy, useCallback, useEffect, useRef } from "react";
import { answer, api } from "../api/client";
import type { ClientPageDto } from "../api/schema";
import { Fold } from "../ui/Fold";
import { Done } from "./Done";
import { FormsPart } from "./FormsPart";
import { Failed, Frame, Notice } from "./Frame";
import { KeptMeans } from "./KeptMeans";
import { Later } from "./Later";
import { Papers } from "./Papers";
import { Head, listParts, Others, Parts, ToDo } from "./Parts";
import { Rates } from "./Rates";
import { useLoaded } from "./useLoaded";

const Booking = lazy(() => import("./Booking"));
const BriefPart = lazy(() => import("./BriefPart"));
const Meetings = lazy(() => import("./Meetings"));
const Pay = lazy(() => import("./Pay"));
const TestimonialPart = lazy(() => import("./TestimonialPart"));
const PickTime = lazy(() => import("./PickTime"));

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
	useTop(step);

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
			{step === "Choose" || step === "Sign" || step === "Book" ? (
				<>
					<Later>
						<Booking page={page} link={link} onDone={reload} />
					</Later>
					<div className="pt-8">
						<Besides page={page} link={link} reload={reload} />
					</div>
				</>
			) : (
				<Standing page={page} link={link} reload={reload} />
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

type Props = { page: ClientPageDto; link: string; reload: () => Promise<void> };

/** What stands below the step that is asked for. */
function Besides({ page, link, reload }: Props) {
	return (
		<>
			{page.meetings.chooseTime && (
				<Fold
					className="mb-6 bg-plaster p-4"
					line={<b>Choose a time: {page.meetings.chooseTime}</b>}
				>
					<Later>
						<PickTime link={link} onDone={reload} />
					</Later>
				</Fold>
			)}
			<Rates page={page} link={link} reload={reload} />
			<ToCome page={page} link={link} reload={reload} />
			<KeptMeans page={page} link={link} onDone={reload} />
			<Brief page={page} link={link} reload={reload} />
		</>
	);
}

/** Nothing of the booking is asked for: what else is, in its order, then what stands open. */
function Standing({ page, link, reload }: Props) {
	const { step } = page.booking;
	const first = page.toDo[0]?.where;
	// one thing that begins right below needs no list
	const alone =
		page.toDo.length === 1 &&
		(["time", "rates", "brief", "pay"].includes(first ?? "") ||
			first?.startsWith("form-"));
	const brief = <Brief page={page} link={link} reload={reload} />;
	return (
		<>
			<Head page={page} />
			<Others page={page} />
			{!alone && <ToDo page={page} />}
			{page.meetings.chooseTime && (
				<div id="time" className="pb-8">
					<Later>
						<PickTime link={link} onDone={reload} />
					</Later>
				</div>
			)}
			<Rates page={page} link={link} reload={reload} />
			{page.parts.brief?.open && brief}
			<FormsPart page={page} link={link} reload={reload} />
			{page.toDo.some((one) => one.where === "pay") && (
				<Later>
					<Pay page={page} link={link} onDone={reload} />
				</Later>
			)}
			<ToCome page={page} link={link} reload={reload} />
			{hasParts(page) ? (
				<Parts page={page} link={link} reload={reload} />
			) : step === "Done" ? (
				<Done page={page} link={link} />
			) : (
				page.booking.invoices.length > 0 && <Papers page={page} link={link} />
			)}
			<KeptMeans page={page} link={link} onDone={reload} />
			{page.parts.testimonial && (
				<Later>
					<TestimonialPart
						shown={page.parts.testimonial}
						owner={page.studio.owner}
						link={link}
						reload={reload}
					/>
				</Later>
			)}
			{!page.parts.brief?.open && brief}
			{step === "Nothing" && !hasParts(page) && page.toDo.length === 0 && (
				<p className="max-w-xl">
					There is nothing for you to do at the moment. {page.studio.owner}{" "}
					writes to you when there is.
				</p>
			)}
		</>
	);
}

function ToCome(props: Props) {
	return (
		props.page.meetings.all.length > 0 && (
			<Later>
				<Meetings {...props} />
			</Later>
		)
	);
}

function Brief({ page, link, reload }: Props) {
	return (
		page.parts.brief && (
			<Later>
				<BriefPart
					brief={page.parts.brief}
					owner={page.studio.owner}
					link={link}
					reload={reload}
				/>
			</Later>
		)
	);
}

const hasParts = (page: ClientPageDto) =>
	Boolean(
		page.parts.whole ||
			page.parts.drafts ||
			page.parts.files ||
			page.parts.tasks ||
			page.parts.runSheet ||
			page.parts.introduction ||
			listParts(page).length > 0 ||
			page.parts.help,
	);
