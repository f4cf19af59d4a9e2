import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { useSearchParams } from "react-router";
import { answer, api } from "../../api/client";
import type { RehearsedDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { CountField } from "../../ui/CountField";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { FileWith } from "../FileWith";

import { useAct } from "../useAct";
import { Played } from "./Played";

export const ways = [
	{ way: "opens", words: "opens the proposal" },
	{ way: "answers", words: "answers" },
	{ way: "chooses", words: "chooses" },
	{ way: "signs", words: "signs" },
	{ way: "pays", words: "pays" },
	{ way: "returnsForm", words: "returns a form" },
] as const;

export type Ways = Record<(typeof ways)[number]["way"], string>;

export const never: Ways = {
	opens: "",
	answers: "",
	chooses: "",
	signs: "",
	pays: "",
	returnsForm: "",
};

const days = (text: string) => (text ? Number(text) : null);

/** A routine for a project, with a client who behaves as is said. */
export function Routine() {
	const [search, setSearch] = useSearchParams();
	const [said, setSaid] = useState<Ways>(never);
	const [played, setPlayed] = useState<RehearsedDto[]>();
	const act = useAct();
	const routines = useQuery({
		queryKey: ["routines"],
		queryFn: () => answer(api.GET("/api/routines")),
	});
	const routine = search.get("routine") ?? "";
	const project = search.get("project");
	async function play(event: FormEvent) {
		event.preventDefault();
		setPlayed(undefined);
		await act.run(async () =>
			setPlayed(
				await answer(
					api.POST("/api/routines/rehearse", {
						body: {
							routine: Number(routine),
							project: Number(project),
							ways: {
								opens: days(said.opens),
								answers: days(said.answers),
								chooses: days(said.chooses),
								signs: days(said.signs),
								pays: days(said.pays),
								returnsForm: days(said.returnsForm),
							},
						},
					}),
				),
			),
		);
	}
	return (
		<section aria-label="A routine">
			<div className="rule flex items-baseline gap-2 pb-1.5">
				<h3>A routine</h3>
				<span className="text-[14px] text-soft">
					every step with its date and its letter; nothing is recorded
				</span>
			</div>
			<form onSubmit={play} className="grid gap-3 pt-3">
				<div className="grid gap-3 md:grid-cols-2">
					<Select
						label="Routine"
						value={routine}
						onChange={(e) =>
							setSearch(
								{
									routine: e.target.value,
									...(project
										? { project, title: search.get("title") ?? "" }
										: {}),
								},
								{ replace: true },
							)
						}
					>
						<option value="">choose</option>
						{routines.data?.map((one) => (
							<option key={one.id} value={one.id}>
								{one.name} of {one.kindName}
							</option>
						))}
					</Select>
					<div>
						<span className="label">Project</span>
						<div className="flex items-center gap-3">
							{project && (
								<b className="font-[650]">
									{search.get("title") ?? `project ${project}`}
								</b>
							)}
							<FileWith
								label={project ? "another" : "find a project"}
								onChoose={(id, title) =>
									setSearch(
										{ routine, project: String(id), title },
										{ replace: true },
									)
								}
							/>
						</div>
					</div>
				</div>
				<fieldset>
					<legend className="label">
						The client, after so many days; empty is never
					</legend>
					<div className="grid grid-cols-2 gap-3 md:grid-cols-6">
						{ways.map(({ way, words }) => (
							<CountField
								key={way}
								label={words}
								min={0}
								value={said[way]}
								wrong={act.refusal?.of(`ways.${way}`)}
								onChange={(count) =>
									setSaid({ ...said, [way]: String(count ?? "") })
								}
							/>
						))}
					</div>
				</fieldset>
				<Refused of={act.refusal} />
				<div>
					<Button
						kind="go"
						type="submit"
						disabled={act.busy || !routine || !project}
					>
						Rehearse it
					</Button>
				</div>
			</form>
			{played && <Played key={played.length} events={played} />}
		</section>
	);
}
