import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { answer, api } from "../../api/client";
import type { AskedResultDto, TodayDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { useUndo } from "../../ui/Undo";
import { useAct } from "../useAct";

const shownAtFirst = 5;

/** What routines ask or tell besides letters; a long list says how many more there are. */
export function AllAsked({ asked }: { asked: TodayDto["ready"]["asked"] }) {
	const [all, setAll] = useState(false);
	const shown = all ? asked : asked.slice(0, shownAtFirst);
	return (
		<>
			{shown.map((one) => (
				<Asked key={`${one.run}${one.step}${one.occurrence}`} asked={one} />
			))}
			{asked.length > shown.length && (
				<p className="border-b border-hair py-2">
					<Button kind="word" onClick={() => setAll(true)}>
						and {asked.length - shown.length} more that ask
					</Button>
				</p>
			)}
		</>
	);
}

/** Something a routine asks or tells that is not a letter. */
function Asked({ asked }: { asked: TodayDto["ready"]["asked"][number] }) {
	const act = useAct();
	const navigate = useNavigate();
	const offer = useUndo();
	const params = { path: { id: asked.project } };
	const { run, step, occurrence } = asked;
	const again = () =>
		act.run(() =>
			answer(
				api.POST("/api/projects/{id}/asked/again", {
					params,
					body: { run, step, occurrence },
				}),
			),
		);
	async function say(yes: boolean) {
		let said: AskedResultDto | undefined;
		await act.run(async () => {
			said = await answer(
				api.POST("/api/projects/{id}/asked", {
					params,
					body: { run, step, occurrence, yes },
				}),
			);
		});
		if (said?.canAskAgain)
			offer({
				words: `${yes ? asked.yes : asked.no}: ${asked.words}`,
				undo: again,
			});
		if (said?.project) navigate(`/projects/${said.project}`);
	}
	return (
		<article
			aria-label={`${asked.title}: ${asked.words}`}
			className="border-b border-hair py-2.5"
		>
			<p>
				<Link className="font-[650]" to={`/projects/${asked.project}`}>
					{asked.title}
				</Link>
				: {asked.words}
			</p>
			<p className="under">
				{asked.client}
				{asked.why && `, ${asked.why}`}
				{asked.lastSaid && `. Last said: “${asked.lastSaid}”`}
			</p>
			<Refused of={act.refusal} />
			<div className="flex gap-2 pt-1.5">
				<Button disabled={act.busy} onClick={() => say(true)}>
					{asked.yes}
				</Button>
				{asked.no && (
					<Button disabled={act.busy} onClick={() => say(false)}>
						{asked.no}
					</Button>
				)}
			</div>
		</article>
	);
}
