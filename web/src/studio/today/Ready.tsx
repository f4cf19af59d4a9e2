import { useState } from "react";
import { Link } from "react-router";
import { answer, api } from "../../api/client";
import type { ReadyDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { useAct } from "../useAct";
import { useLetterActs } from "../useLetterActs";
import { Later } from "./Later";

/** A letter that waits for the owner's OK: why it is due, and what the client last said. */
export function Ready({ ready }: { ready: ReadyDto }) {
	const act = useAct();
	const letter = useLetterActs(act, ready.letter, ready.text.subject);
	const [later, setLater] = useState(false);
	const open = `/projects/${ready.for.project}?open=Letter.${ready.letter}`;
	return (
		<article
			aria-label={`${ready.text.subject}, to ${ready.for.to}`}
			data-sends
			className="panel mt-2.5 p-3.5 text-[14.3px]"
		>
			<div className="under flex gap-3 pb-1">
				<span>
					to {ready.for.to},{" "}
					<Link to={`/projects/${ready.for.project}`}>{ready.for.title}</Link>
				</span>
				<span className="ml-auto whitespace-nowrap">{ready.since}</span>
			</div>
			<Link to={open} data-walk className="inline-block py-0.5 font-[650]">
				{ready.text.subject}
			</Link>
			<p className="pt-0.5 pb-2 text-soft">{ready.text.preview}</p>
			{ready.lastSaid && (
				<p className="under pb-2">They last wrote: “{ready.lastSaid}”</p>
			)}
			{ready.text.gaps && (
				<p className="pb-2 font-[650]">It still lacks: {ready.text.gaps}</p>
			)}
			{ready.text.problem && (
				<p className="pb-2 font-[650]">It was refused: {ready.text.problem}</p>
			)}
			<div className="flex flex-wrap items-center gap-[7px]">
				<Button
					kind="go"
					disabled={act.busy || Boolean(ready.text.gaps)}
					onClick={() => letter.send({ subject: null, body: null })}
				>
					Send
				</Button>
				<Button asChild>
					<Link to={open}>Edit</Link>
				</Button>
				<Button disabled={act.busy} onClick={letter.skip}>
					Skip
				</Button>
				{ready.canWait && (
					<Button aria-expanded={later} onClick={() => setLater(!later)}>
						Later
					</Button>
				)}
				<span className="ml-auto text-small text-theirs">{ready.why}</span>
			</div>
			{later && <Later letter={ready.letter} onDone={() => setLater(false)} />}
			<Refused of={act.refusal} />
		</article>
	);
}

/** One press for all that wait with the same text. */
export function SendAll({ ready }: { ready: readonly ReadyDto[] }) {
	const act = useAct();
	// at most one goes to a project
	const sorts = new Map<string, { name: string; projects: Set<number> }>();
	for (const one of ready)
		if (one.sort && !one.text.gaps) {
			const sort = sorts.get(one.sort.key) ?? {
				name: one.sort.name,
				projects: new Set(),
			};
			sorts.set(one.sort.key, sort);
			sort.projects.add(one.for.project);
		}
	const several = [...sorts].filter(([, sort]) => sort.projects.size > 1);
	if (several.length === 0) return null;
	return (
		<div className="flex flex-wrap gap-2 pt-2.5">
			{several.map(([key, sort]) => (
				<Button
					key={key}
					disabled={act.busy}
					onClick={() =>
						act.run(() =>
							answer(
								api.POST("/api/letters/release", { body: { template: key } }),
							),
						)
					}
				>
					Send all {sort.projects.size} “{sort.name}”
				</Button>
			))}
			<Refused of={act.refusal} />
		</div>
	);
}
