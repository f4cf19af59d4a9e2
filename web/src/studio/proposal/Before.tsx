import { Link } from "react-router";
import { answer, api } from "../../api/client";
import type { DraftDto, PointDto } from "../../api/schema";
import { Differences } from "../../client/Differences";
import { Button } from "../../ui/Button";
import { Fold } from "../../ui/Fold";
import { Refused } from "../../ui/Refused";
import { useAct } from "../useAct";

/** Everything that is looked at before it goes; what is missing leads to where it is mended. */
export function Before({
	draft,
	project,
	onAmend,
}: {
	draft: DraftDto;
	project: number;
	/** An amendment was begun in the draft's place. */
	onAmend: (begun: DraftDto) => void;
}) {
	const act = useAct();
	return (
		<section className="panel p-4" aria-label="Before it goes">
			<h2 className="pb-2">Before it goes</h2>
			{draft.closed && <p className="pb-2 font-[650]">{draft.closed}</p>}
			{draft.closed && draft.canAmend && (
				<div className="pb-3">
					<Button
						disabled={act.busy}
						onClick={() =>
							act.run(async () =>
								onAmend(
									await answer(
										api.POST("/api/projects/{id}/proposal/amend", {
											params: { path: { id: project } },
										}),
									),
								),
							)
						}
					>
						Write an amendment
					</Button>
					<Refused of={act.refusal} />
				</div>
			)}
			{draft.amends && draft.differences.length > 0 && (
				<section aria-label="What changes" className="pb-3">
					<Differences of={draft.differences} />
					<p className="pt-2">
						{draft.amends.before} becomes {draft.priced?.total ?? "…"}
						{draft.amends.credited &&
							`; ${draft.amends.credited} is taken back by a credit note`}
						.
					</p>
				</section>
			)}
			<ul className="grid gap-2">
				{draft.points.map((point) => (
					<li key={point.where + point.words} className="flex gap-2.5">
						<span
							aria-hidden="true"
							className={`mt-1 size-3 shrink-0 border-[1.5px] border-ink ${point.done ? "bg-ink" : ""}`}
						/>
						<span className={point.done ? "text-soft" : ""}>
							<Point point={point} project={project} person={draft.person} />
							<span className="sr-only">
								{point.done ? ", done" : point.blocks ? ", missing" : ", open"}
							</span>
						</span>
					</li>
				))}
			</ul>
			{draft.sent && (
				<div className="pt-3">
					<p className="under">
						Version {draft.sent.number} went out {draft.sent.at},{" "}
						{draft.sent.ranOut ? "ran out" : "valid until"}{" "}
						{draft.sent.validUntil};{" "}
						{draft.sent.opened
							? `opened ${draft.sent.opened}`
							: "not opened as far as is known"}
						.
					</p>
					{draft.differences.length > 0 ? (
						<Fold
							line={`Different from version ${draft.sent.number}: ${draft.differences.length}`}
						>
							<Differences of={draft.differences} />
						</Fold>
					) : (
						<p className="under">This draft reads as it did.</p>
					)}
				</div>
			)}
		</section>
	);
}

function Point({
	point,
	project,
	person,
}: {
	point: PointDto;
	project: number;
	person: number;
}) {
	if (point.done) return point.words;
	if (point.where === "record" || point.where === "person")
		return (
			<Button asChild kind="word">
				<Link
					to={
						point.where === "record"
							? `/projects/${project}`
							: `/people/${person}`
					}
				>
					{point.words}
				</Link>
			</Button>
		);
	return (
		<Button asChild kind="word">
			<a href={`#${placeOf(point.where)}`}>{point.words}</a>
		</Button>
	);
}

/** The place of a field on the page: a line's own, else its section. */
export const placeOf = (field: string) =>
	field.startsWith("lines.") ? `line-${field.slice(6)}` : `offer-${field}`;
