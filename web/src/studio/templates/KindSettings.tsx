import { useState } from "react";
import { answer, api } from "../../api/client";
import type { KindPageDto, KindSettingsDto } from "../../api/schema";
import { KeepAll, useKeepAll } from "../KeepAll";
import { Brief } from "./KindBrief";
import { Details } from "./KindDetails";
import { KindIntroduction } from "./KindIntroduction";
import { KindNames } from "./KindNames";
import { KindPath } from "./KindPath";
import { KindWork } from "./KindWork";
import { Section } from "./Section";

/** What each part of a kind's settings is given. */
export type KindPart = {
	said: KindSettingsDto;
	wrong: (field: string) => string | undefined;
	set: (part: Partial<KindSettingsDto>) => void;
};

/** Everything of a kind that is no form, letter, price or routine. */
export function KindSettings({ kind }: { kind: KindPageDto }) {
	const [said, setSaid] = useState(kind.settings);
	const all = useKeepAll(() =>
		answer(
			api.PUT("/api/kinds/{id}/settings", {
				params: { path: { id: kind.id } },
				body: said,
			}),
		),
	);
	const part: KindPart = {
		said,
		wrong: (field) => all.refusal?.of(field),
		set: (change) => setSaid({ ...said, ...change }),
	};
	const unchanged = said === kind.settings;
	const keep = (words: string) => (
		<KeepAll
			all={all}
			words={words}
			unchanged={unchanged}
			beside={
				!unchanged &&
				kind.projects > 0 && (
					<span className="under">
						{kind.projects === 1
							? "One project has begun with this kind. It keeps"
							: `${kind.projects} projects have begun with this kind. They keep`}{" "}
						what they began with, but for the kind’s name.
					</span>
				)
			}
		/>
	);
	const { path, work } = kind.settings;
	return (
		<>
			<Section
				title="Name and date"
				under={
					kind.settings.mainDate
						? `the date that matters is the ${kind.settings.mainDate}`
						: "work without a date that matters"
				}
			>
				<KindNames {...part} />
				{keep("Keep name and date")}
			</Section>
			<Section
				title="The way"
				under={`${path.gates
					.filter((gate) => gate.has)
					.map((gate) => gate.name || gate.gate)
					.join(
						", ",
					)}${path.milestones.length > 0 ? `; ${path.milestones.map((one) => one.name).join(", ")}` : ""}`}
			>
				<KindPath {...part} />
				{keep("Keep the way")}
			</Section>
			<Section
				title="The work"
				under={`${work.phases.map((phase) => phase.name).join(", ") || "no phases"}; ${work.rounds} round${work.rounds === 1 ? "" : "s"} of review included`}
			>
				<KindWork {...part} />
				{keep("Keep the work")}
			</Section>
			<Section
				title="What clients read to begin with"
				under={
					kind.settings.introduction?.text ||
					kind.settings.introduction?.questions.length
						? `${kind.settings.introduction.questions.length} question${kind.settings.introduction.questions.length === 1 ? "" : "s"} answered; opened on the client page as the introduction`
						: "nothing yet; opened on the client page as the introduction"
				}
			>
				<KindIntroduction {...part} />
				{keep("Keep what they read")}
			</Section>
			<Section
				title="Details and brief"
				under={`${said.details.length} detail${said.details.length === 1 ? "" : "s"}, ${said.brief.length} part${said.brief.length === 1 ? "" : "s"} of the brief`}
			>
				<Details
					details={said.details}
					wrong={part.wrong}
					onChange={(details) => part.set({ details })}
				/>
				<Brief
					parts={said.brief}
					wrong={part.wrong}
					onChange={(brief) => part.set({ brief })}
				/>
				{keep("Keep details and brief")}
			</Section>
		</>
	);
}
