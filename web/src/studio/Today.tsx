import { useQuery } from "@tanstack/react-query";
import { type ReactNode, useEffect } from "react";
import { Link } from "react-router";
import type { TodayCardDto, TodayDto } from "../api/schema";
import { get, post } from "../ui/http";
import { Shown } from "../ui/Shown";
import { AllAsked } from "./Asked";
import { beginInquiry } from "./beginInquiry";
import { Ready, SendAll } from "./Ready";
import { useTaskDone } from "./useTaskDone";

/** The first look of the day. */
export function Today() {
	const today = useQuery({
		queryKey: ["today"],
		queryFn: () => get<TodayDto>("/api/today"),
	});
	useEffect(() => {
		document.title = "Today, Gesamt";
		// what is new stays marked for this look, and is seen at the next
		return () => {
			post("/api/today/looked").catch(() => undefined);
		};
	}, []);
	return <Shown query={today}>{(data) => <Page today={data} />}</Shown>;
}

function Page({ today }: { today: TodayDto }) {
	const inquiries = today.yourTurn.filter((one) => one.isInquiry);
	const rest = today.yourTurn.filter((one) => !one.isInquiry);
	const waiting = today.ready.length + today.asked.length;
	return (
		<main className="px-5 pb-8">
			<div className="flex flex-wrap items-end gap-x-5 gap-y-1 pt-4 pb-3">
				<h1>{today.date}</h1>
				<button type="button" className="btn" onClick={() => beginInquiry()}>
					New inquiry <span className="kbd max-md:hidden">i</span>
				</button>
				<p className="ml-auto flex flex-wrap gap-x-5 text-soft">
					<span>
						{today.money.month} so far:{" "}
						<b className="num text-ink">{today.money.booked}</b> booked, worth{" "}
						<b className="num text-ink">{today.money.won}</b> net
					</span>
					<span>
						<b className="num text-ink">{today.money.received}</b> received
					</span>
					<span>
						<b className="num text-ink">{today.money.sent}</b> sent, not yet due
					</span>
					<span>
						<b className="num text-ink">{today.money.late}</b> late
					</span>
				</p>
			</div>
			<div className="grid gap-x-[18px] gap-y-7 lg:grid-cols-[1.12fr_1.1fr_0.84fr]">
				<section aria-labelledby="your-turn">
					<Head
						id="your-turn"
						title="Your turn"
						under={`${today.yours} project${today.yours === 1 ? "" : "s"}`}
					/>
					{inquiries.length > 0 && <Group>New inquiries</Group>}
					{inquiries.map((one) => (
						<Turn key={one.card.id} turn={one} />
					))}
					{rest.length > 0 && <Group>Then, longest first</Group>}
					{rest.map((one) => (
						<Turn key={one.card.id} turn={one} />
					))}
					{today.yours === 0 && (
						<Empty>
							Nothing waits for you. A new inquiry would stand here first.
						</Empty>
					)}
				</section>
				<section aria-labelledby="ready">
					<Head
						id="ready"
						title="Ready to go out"
						under={
							waiting === 0
								? "nothing waits for your OK"
								: `${waiting} wait${waiting === 1 ? "s" : ""} for your OK`
						}
					/>
					{today.uncertain.map((one) => (
						<p
							key={`${one.project}${one.title}`}
							className="border-b border-hair py-2 font-[650]"
						>
							<Link className="link" to={`/projects/${one.project}`}>
								{one.projectTitle}
							</Link>
							: {one.title}
						</p>
					))}
					{today.troubles.map((trouble) => (
						<p
							key={trouble}
							className="border-b border-hair py-2 font-[650]"
							role="alert"
						>
							{trouble}
						</p>
					))}
					{today.mailProblem && (
						<p className="border-b border-hair py-2 font-[650]">
							The inbox cannot be read: {today.mailProblem}{" "}
							<Link className="link" to="/studio">
								Look at its settings
							</Link>
						</p>
					)}
					<AllAsked asked={today.asked} />
					<SendAll ready={today.ready} />
					{today.ready.map((one) => (
						<Ready key={one.letter} ready={one} />
					))}
					{waiting === 0 && (
						<Empty>
							Letters of routines that ask first wait here until you send or
							skip them.
						</Empty>
					)}
					<Head id="by-itself" title="By itself today" low />
					{today.byItself.map((one) => (
						<div
							key={`${one.project}${one.title}${one.time}`}
							className="flex gap-3 border-b border-hair py-2"
						>
							<span>
								<Link to={`/projects/${one.project}`}>{one.title}</Link>
								<span className="under block">{one.detail}</span>
							</span>
							<time className="ml-auto text-soft">{one.time}</time>
						</div>
					))}
					{today.byItself.length === 0 && (
						<Empty>Nothing more leaves by itself today.</Empty>
					)}
				</section>
				<section aria-labelledby="the-day">
					<Head
						id="the-day"
						title="The day"
						under={tasks(today.tasks.length)}
					/>
					{today.meetings.map((one) => (
						<Link
							key={one.meeting}
							to={`/projects/${one.project}?open=Meeting.${one.meeting}`}
							className="flex gap-3 border-b border-hair py-2"
						>
							<span>
								<b className="font-[650]">{one.title}</b>
								<span className="under block">{one.detail}</span>
							</span>
							<time className="ml-auto whitespace-nowrap">{one.when}</time>
						</Link>
					))}
					{today.tasks.map((task) => (
						<Task key={task.id} task={task} />
					))}
					{today.tasks.length === 0 && (
						<Empty>No task is due today, and none is late.</Empty>
					)}
					<Head
						id="came-in"
						title="Came in"
						under={`since ${today.cameInSince}`}
						low
					/>
					{today.cameIn.map((one) => (
						<div
							key={`${one.words}${one.when}`}
							className="flex gap-3 border-b border-hair py-2"
						>
							<Link
								to={`/projects/${one.project}`}
								className={one.new ? "font-[650]" : ""}
							>
								{one.words}
								{one.new && <span className="sr-only"> (new)</span>}
							</Link>
							<time className="ml-auto whitespace-nowrap text-soft">
								{one.when}
							</time>
						</div>
					))}
					{today.cameInMore > 0 && (
						<p className="under pt-2">and {today.cameInMore} more</p>
					)}
					{today.tray > 0 && (
						<p className="pt-3">
							<Link className="link font-[650]" to="/tray">
								Tray: {today.tray} {today.tray === 1 ? "thing" : "things"}{" "}
								without a project
							</Link>
						</p>
					)}
				</section>
			</div>
		</main>
	);
}

const tasks = (count: number) =>
	count === 0 ? "nothing due" : `${count} task${count === 1 ? "" : "s"} due`;

export function Head({
	id,
	title,
	under,
	low,
}: {
	id: string;
	title: string;
	under?: string;
	low?: boolean;
}) {
	return (
		<div
			className={`rule flex items-baseline gap-2 pb-1.5 ${low ? "pt-5" : ""}`}
		>
			<h2 id={id} className={low ? "text-[15px]" : ""}>
				{title}
			</h2>
			{under && <span className="text-[14px] text-soft">{under}</span>}
		</div>
	);
}

function Group({ children }: { children: ReactNode }) {
	return (
		<h3 className="pt-2.5 pb-1 text-[12.5px] font-semibold text-soft">
			{children}
		</h3>
	);
}

function Empty({ children }: { children: ReactNode }) {
	return <p className="py-3 text-soft">{children}</p>;
}

function Turn({ turn }: { turn: TodayCardDto }) {
	const { card } = turn;
	return (
		<Link
			to={`/projects/${card.id}`}
			data-walk
			className="grid grid-cols-[1fr_auto] gap-x-3 border-b border-hair py-[8px] text-[14.6px] focus-visible:bg-sheet focus-visible:outline-offset-0"
		>
			<span>
				<b className="font-[650]">{card.title}</b>,{" "}
				{card.words.charAt(0).toLowerCase() + card.words.slice(1)}
			</span>
			<span className="num text-[13.4px] text-yours">
				{card.age}
				<span className="sr-only"> waiting for you</span>
			</span>
			<span className="under col-span-2 truncate">{turn.lastWords}</span>
		</Link>
	);
}

function Task({ task }: { task: TodayDto["tasks"][number] }) {
	const done = useTaskDone(task.project);
	return (
		<div className="flex items-start gap-3 border-b border-hair py-2">
			<input
				type="checkbox"
				aria-label={`${task.title} is done`}
				className="mt-1 size-4 accent-(--ink)"
				onChange={() => done(task.id, task.title)}
			/>
			<span>
				{task.title}
				<Link className="under block" to={`/projects/${task.project}`}>
					{task.projectTitle}
				</Link>
			</span>
			<span
				className={`ml-auto text-[13.4px] whitespace-nowrap ${task.late ? "font-[650]" : "text-soft"}`}
			>
				{task.due}
			</span>
		</div>
	);
}
