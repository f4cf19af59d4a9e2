import { Link } from "react-router";
import type { TodayDto } from "../api/schema";
import { Alert } from "../ui/Fields";
import { post } from "../ui/http";
import { useAct } from "./useAct";

/** A project that may have gone quiet: it ends only by the owner's OK. */
export function Quiet({ quiet }: { quiet: TodayDto["quiet"][number] }) {
	const act = useAct();
	const answer = (end: boolean) =>
		act.run(() =>
			post(`/api/projects/${quiet.project}/quiet`, {
				run: quiet.run,
				step: quiet.step,
				occurrence: quiet.occurrence,
				end,
			}),
		);
	return (
		<article
			aria-label={`${quiet.title}, gone quiet?`}
			className="border-b border-hair py-2.5"
		>
			<p>
				<Link className="font-[650]" to={`/projects/${quiet.project}`}>
					{quiet.title}
				</Link>
				: end it as gone quiet?
			</p>
			<p className="under">
				{quiet.client}, {quiet.why}
				{quiet.lastSaid && `. Last said: “${quiet.lastSaid}”`}
			</p>
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
			<div className="flex gap-2 pt-1.5">
				<button
					type="button"
					className="btn"
					disabled={act.busy}
					onClick={() => answer(true)}
				>
					End it
				</button>
				<button
					type="button"
					className="btn"
					disabled={act.busy}
					onClick={() => answer(false)}
				>
					Keep it open
				</button>
			</div>
		</article>
	);
}
