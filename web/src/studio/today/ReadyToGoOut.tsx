import { Link } from "react-router";
import type { TodayDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Empty } from "../../ui/Empty";
import { AllAsked } from "./Asked";
import { Head } from "./Head";
import { Ready, SendAll } from "./Ready";

/** Letters that wait for an OK, what asks to be seen, what troubles the post, and what leaves by itself today. */
export function ReadyToGoOut({ today }: { today: TodayDto }) {
	const waiting = today.ready.letters.length + today.ready.asked.length;
	return (
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
			{today.ready.uncertain.map((one) => (
				<p
					key={`${one.project}${one.title}`}
					className="border-b border-hair py-2 font-[650]"
				>
					<Button asChild kind="word">
						<Link to={`/projects/${one.project}`}>{one.projectTitle}</Link>
					</Button>
					: {one.title}
				</p>
			))}
			{today.ready.troubles.map((trouble) => (
				<p
					key={trouble}
					className="border-b border-hair py-2 font-[650]"
					role="alert"
				>
					{trouble}
				</p>
			))}
			{today.ready.mailProblem && (
				<p className="border-b border-hair py-2 font-[650]">
					The inbox cannot be read: {today.ready.mailProblem}{" "}
					<Button asChild kind="word">
						<Link to="/studio">Look at its settings</Link>
					</Button>
				</p>
			)}
			<AllAsked asked={today.ready.asked} />
			<SendAll ready={today.ready.letters} />
			{today.ready.letters.map((one) => (
				<Ready key={one.letter} ready={one} />
			))}
			{waiting === 0 && (
				<Empty>
					Letters of routines that ask first wait here until you send or skip
					them.
				</Empty>
			)}
			<Head id="by-itself" title="By itself today" low />
			{today.ready.byItself.map((one) => (
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
			{today.ready.byItself.length === 0 && (
				<Empty>Nothing more leaves by itself today.</Empty>
			)}
		</section>
	);
}
