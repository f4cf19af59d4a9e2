import { useState } from "react";
import { Link } from "react-router";
import type { ReadyDto } from "../api/schema";
import { Alert } from "../ui/Fields";
import { post } from "../ui/http";
import { Later } from "./Later";
import { useAct } from "./useAct";

/** A letter that waits for the owner's OK: why it is due, and what the client last said. */
export function Ready({ ready }: { ready: ReadyDto }) {
	const act = useAct();
	const [later, setLater] = useState(false);
	const open = `/projects/${ready.project}?open=Letter.${ready.letter}`;
	return (
		<article
			aria-label={`${ready.subject}, to ${ready.to}`}
			className="panel mt-2.5 p-3.5 text-[14.3px]"
		>
			<div className="under flex gap-3 pb-1">
				<span>
					to {ready.to},{" "}
					<Link to={`/projects/${ready.project}`}>{ready.projectTitle}</Link>
				</span>
				<span className="ml-auto whitespace-nowrap">{ready.since}</span>
			</div>
			<b className="font-[650]">{ready.subject}</b>
			<p className="pt-0.5 pb-2 text-soft">{ready.preview}</p>
			{ready.lastSaid && (
				<p className="under pb-2">They last wrote: “{ready.lastSaid}”</p>
			)}
			{ready.gaps && (
				<p className="pb-2 font-[650]">It still lacks: {ready.gaps}</p>
			)}
			{ready.problem && (
				<p className="pb-2 font-[650]">It was refused: {ready.problem}</p>
			)}
			<div className="flex flex-wrap items-center gap-[7px]">
				<button
					type="button"
					className="btn btn-go"
					disabled={act.busy || Boolean(ready.gaps)}
					onClick={() =>
						act.run(() =>
							post(`/api/letters/${ready.letter}/release`, {
								subject: null,
								body: null,
							}),
						)
					}
				>
					Send
				</button>
				<Link className="btn" to={open}>
					Edit
				</Link>
				<button
					type="button"
					className="btn"
					disabled={act.busy}
					onClick={() =>
						act.run(() => post(`/api/letters/${ready.letter}/skip`))
					}
				>
					Skip
				</button>
				{ready.canWait && (
					<button
						type="button"
						className="btn"
						aria-expanded={later}
						onClick={() => setLater(!later)}
					>
						Later
					</button>
				)}
				<span className="ml-auto text-small text-theirs">{ready.why}</span>
			</div>
			{later && <Later letter={ready.letter} onDone={() => setLater(false)} />}
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
		</article>
	);
}

/** One press for all that wait with the same text. */
export function SendAll({ ready }: { ready: readonly ReadyDto[] }) {
	const act = useAct();
	// at most one goes to a project
	const sorts = new Map<string, { name: string; projects: Set<number> }>();
	for (const one of ready)
		if (one.sort && !one.gaps) {
			const sort = sorts.get(one.sort) ?? {
				name: one.sortName ?? one.sort,
				projects: new Set(),
			};
			sorts.set(one.sort, sort);
			sort.projects.add(one.project);
		}
	const several = [...sorts].filter(([, sort]) => sort.projects.size > 1);
	if (several.length === 0) return null;
	return (
		<div className="flex flex-wrap gap-2 pt-2.5">
			{several.map(([key, sort]) => (
				<button
					key={key}
					type="button"
					className="btn"
					disabled={act.busy}
					onClick={() =>
						act.run(() => post("/api/letters/release", { template: key }))
					}
				>
					Send all {sort.projects.size} “{sort.name}”
				</button>
			))}
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
		</div>
	);
}
