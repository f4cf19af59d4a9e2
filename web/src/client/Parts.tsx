import { lazy } from "react";
import type {
	ClientPageDto,
	ClientPhaseDto,
	ListDto,
	PagePart,
} from "../api/schema";
import { Button } from "../ui/Button";
import { AskPart } from "./AskPart";
import { Later } from "./Later";
import { Papers } from "./Papers";

const Rounds = lazy(() => import("./Rounds"));
const TasksPart = lazy(() => import("./TasksPart"));
const IntroductionPart = lazy(() => import("./IntroductionPart"));
const RunSheetPart = lazy(() => import("./RunSheetPart"));
const ListsPart = lazy(() => import("./ListsPart"));
const DeliveredFiles = lazy(() => import("./DeliveredFiles"));

export type PartProps = {
	page: ClientPageDto;
	link: string;
	reload: () => Promise<void>;
	/** Set when the owner looks at the page: pictures come from there, and nothing can be done. */
	files?: string;
};

/** The parts of a client page that are open, the phases of the project first. */
export function Parts({ page, link, reload, files }: PartProps) {
	// nothing can be done yet where it is only read, as where the owner looks
	const reads = page.readOnly ? (files ?? `/p/${link}/api`) : files;
	return (
		<div className="grid gap-x-14 gap-y-8 md:grid-cols-[1.5fr_1fr]">
			<div className="grid content-start gap-8">
				{page.readOnly && (
					<p role="note" className="bg-plaster p-4">
						For now this is yours to read. It opens to your changes once you and{" "}
						{page.studio.owner} have spoken about the start.
					</p>
				)}
				{page.parts.introduction && (
					<Later>
						<IntroductionPart
							said={page.parts.introduction}
							page={page}
							link={link}
							reload={reload}
							files={files}
						/>
					</Later>
				)}
				{page.parts.whole && page.parts.whole.phases.length > 0 && (
					<Phases phases={page.parts.whole.phases} />
				)}
				<Later>
					{page.parts.tasks && (
						<TasksPart page={page} link={link} reload={reload} files={reads} />
					)}
					{page.parts.runSheet && (
						<RunSheetPart
							page={page}
							link={link}
							reload={reload}
							files={reads}
						/>
					)}
					{listParts(page).map((one) => (
						<ListsPart
							key={one.part}
							{...one}
							page={page}
							link={link}
							reload={reload}
							files={files}
						/>
					))}
					{page.parts.drafts && (
						<Rounds page={page} link={link} reload={reload} files={reads} />
					)}
					{page.parts.files && (
						<DeliveredFiles
							page={page}
							link={link}
							reload={reload}
							files={files}
						/>
					)}
				</Later>
			</div>
			<div className="grid content-start gap-8">
				<Papers page={page} link={link} />
				{page.parts.help && (
					<section id="help">
						<h2 className="rule pb-1.5">Help</h2>
						<p className="pt-2">
							Write to {page.studio.owner} at{" "}
							<Button asChild kind="word" className="break-words">
								<a href={`mailto:${page.parts.help}`}>{page.parts.help}</a>
							</Button>
							, or answer any letter you got. Whatever you send there is filed
							with this project.
						</p>
						{!files && (
							<AskPart
								part="Help"
								link={link}
								owner={page.studio.owner}
								reload={reload}
							/>
						)}
					</section>
				)}
			</div>
		</div>
	);
}

/** Boards, lists and notes that are open. */
export function listParts({ parts }: ClientPageDto) {
	const all: [PagePart, string, readonly ListDto[] | null][] = [
		["Boards", "Mood boards", parts.boards],
		["Lists", "Lists", parts.lists],
		["Notes", "Shared notes", parts.notes],
	];
	return all.flatMap(([part, title, lists]) =>
		lists ? [{ part, title, lists }] : [],
	);
}

/** Whose page it is: the project, with its date where that is shown. */
export function Head({ page }: { page: ClientPageDto }) {
	const whole = page.parts.whole;
	return (
		<div className="pb-4">
			<h1 className="text-[28px]">{page.project}</h1>
			{whole?.date && (
				<p className="pt-1 text-soft">
					{whole.dateName} {whole.date}, {whole.distance}
				</p>
			)}
		</div>
	);
}

/** What is asked now, each leading to its place. */
export function ToDo({ page }: { page: ClientPageDto }) {
	if (page.toDo.length === 0)
		return page.parts.whole ? (
			<p className="mb-6 bg-plaster p-4">
				{page.parts.whole.finished
					? "Everything is done. This page stays for you to come back to."
					: `There is nothing for you to do at the moment. ${page.studio.owner} writes to you when there is.`}
			</p>
		) : null;
	return (
		<section
			aria-labelledby="to-do"
			className="mb-6 border-l-[6px] border-brand bg-plaster p-4"
		>
			<h2 id="to-do" className="pb-1">
				For you to do now
			</h2>
			<ul>
				{page.toDo.map((one) => (
					<li key={one.words} className="py-0.5">
						<Button asChild kind="word">
							<a href={`#${one.where}`}>{one.words}</a>
						</Button>
					</li>
				))}
			</ul>
		</section>
	);
}

function Phases({ phases }: { phases: readonly ClientPhaseDto[] }) {
	return (
		<section aria-label="The project as a whole">
			<ol>
				{phases.map((phase) => (
					<Phase key={phase.name} phase={phase} />
				))}
			</ol>
		</section>
	);
}

const states: Record<ClientPhaseDto["state"], string> = {
	Ahead: "ahead",
	InWork: "in work",
	Resting: "resting",
	Done: "done",
};

function Phase({ phase }: { phase: ClientPhaseDto }) {
	const mark = {
		Ahead: "border-2 border-soft",
		InWork: "border-[3px] border-brand bg-sheet",
		Resting: "border-2 border-dotted border-soft",
		Done: "bg-ink",
	}[phase.state];
	return (
		<li className="flex items-baseline gap-3 border-b border-hair py-2">
			<span className={`size-3 shrink-0 self-center ${mark}`} />
			<span className={phase.state === "InWork" ? "font-[650]" : ""}>
				{phase.name}
			</span>
			<span className="ml-auto text-[14.5px] text-soft">
				{states[phase.state]}
				{phase.when &&
					`, ${phase.state === "InWork" ? "since " : ""}${phase.when}`}
			</span>
		</li>
	);
}

/** The way to their other projects, where the owner put them together. */
export function Others({ page }: { page: ClientPageDto }) {
	if (page.others.length === 0) return null;
	return (
		<nav aria-label="Your other projects" className="pb-4">
			<span className="text-soft">Also yours: </span>
			{page.others.map((one, at) => (
				<span key={one.project}>
					{at > 0 && ", "}
					{one.address ? (
						<Button asChild kind="word">
							<a href={one.address}>{one.project}</a>
						</Button>
					) : (
						one.project
					)}
				</span>
			))}
		</nav>
	);
}
