import { useState } from "react";
import { answer, api } from "../../api/client";
import type { MatchDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Tick } from "../../ui/Tick";
import { useAct } from "../useAct";

const words: Record<string, string> = {
	organisation: "organisation",
	mail: "mail address",
	phone: "phone",
	profile: "profile",
	address: "postal address",
	taxNumber: "tax number",
	country: "country",
};

/** People who may be the same, with what is known of them: the owner says yes or no. */
export function Matches({
	person,
	matches,
}: {
	person: number;
	matches: readonly MatchDto[];
}) {
	const act = useAct();
	if (matches.length === 0) return null;
	return (
		<section
			aria-label="Known already?"
			className="mb-4 border-l-4 border-ink bg-sheet px-4 py-2"
		>
			{matches.map((match) => (
				<Match key={match.person} person={person} match={match} act={act} />
			))}
			<Refused of={act.refusal} />
		</section>
	);
}

function Match({
	person,
	match,
	act,
}: {
	person: number;
	match: MatchDto;
	act: ReturnType<typeof useAct>;
}) {
	const [take, setTake] = useState<string[]>([]);
	return (
		<div className="flex flex-wrap items-start gap-x-4 gap-y-2 py-1.5">
			<p className="min-w-60 flex-1">
				<b className="font-[650]">
					{match.name}
					{match.organisation && `, ${match.organisation}`}
				</b>{" "}
				has {match.why}.
				<span className="under block">
					{match.projects.length > 0
						? `Known from ${match.projects.join(", ")}`
						: "Known, without a project"}
					{match.lastContact && `; last contact ${match.lastContact}`}
				</span>
				{match.differs.map((one) => (
					<Tick
						key={one.detail}
						label={
							<>
								if they are the same, take the {words[one.detail] ?? one.detail}{" "}
								said now, {one.said}, instead of {one.known}
							</>
						}
						className="text-[14px]"
						checked={take.includes(one.detail)}
						onChange={(checked) =>
							setTake(
								checked
									? [...take, one.detail]
									: take.filter((detail) => detail !== one.detail),
							)
						}
					/>
				))}
			</p>
			<Button
				disabled={act.busy}
				onClick={() =>
					act.run(() =>
						answer(
							api.POST("/api/people/{id}/same-as/{other}", {
								params: { path: { id: person, other: match.person } },
								body: { take },
							}),
						),
					)
				}
			>
				The same person
			</Button>
			<Button
				disabled={act.busy}
				onClick={() =>
					act.run(() =>
						answer(
							api.POST("/api/people/{id}/different-from/{other}", {
								params: { path: { id: person, other: match.person } },
							}),
						),
					)
				}
			>
				Somebody else
			</Button>
		</div>
	);
}
