import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../../api/client";
import type { ArchiveDto, ArchiveRunDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Progress } from "../../ui/Progress";
import { Refused } from "../../ui/Refused";
import { Shown } from "../../ui/Shown";
import { Tick } from "../../ui/Tick";
import { Section } from "../templates/Section";
import { useAct } from "../useAct";

const moment = 1_000;

/** Everything in one file of open formats, to leave with and to come back from. */
export function Archive() {
	const archive = useQuery({
		queryKey: ["archive"],
		queryFn: () => answer(api.GET("/api/archive")),
		refetchInterval: (query) => (query.state.data?.running ? moment : false),
	});
	const kept = archive.data?.kept;
	return (
		<Section
			title="Archive"
			under={
				archive.data?.running
					? "One is being made."
					: kept
						? `One is kept, of ${kept.when}.`
						: "Everything in one file of open formats."
			}
		>
			<Shown query={archive}>{(data) => <Made archive={data} />}</Shown>
		</Section>
	);
}

function Made({ archive }: { archive: ArchiveDto }) {
	const act = useAct();
	const [withLinks, setWithLinks] = useState(false);
	return (
		<div className="grid gap-3">
			<p>
				All of the studio in one ZIP that other programs can read: what happened
				as lines of JSON, tables as JSON and CSV, letters as mail files, the
				calendar, people as vCards, papers as PDF and UBL, files under their
				names. It describes itself, and an empty Gesamt takes it in again.
			</p>
			<p className="under">
				No passwords and keys are in it. All that clients told you is: keep it
				as you keep their papers.
			</p>
			{archive.problem && <p className="wrong">{archive.problem}</p>}
			{archive.kept && !archive.running && (
				<p className="flex flex-wrap items-baseline gap-x-4 border-y border-hair py-1.5">
					<Button asChild kind="word">
						<a
							href={`/api/archive/${encodeURIComponent(archive.kept.name)}`}
							download
						>
							{archive.kept.when}
						</a>
					</Button>
					<span className="num text-soft">{archive.kept.size}</span>
					<Button
						kind="word"
						disabled={act.busy}
						onClick={() => act.run(() => answer(api.DELETE("/api/archive")))}
					>
						Take it away
					</Button>
				</p>
			)}
			<Refused of={act.refusal} />
			{archive.running ? (
				<Running
					run={archive.running}
					onStop={() => act.run(() => answer(api.POST("/api/archive/stop")))}
				/>
			) : (
				<>
					<Tick
						checked={withLinks}
						onChange={setWithLinks}
						label="With the key of your clients’ links"
						under="So that links in letters you sent go on to open when you come back with it. Leave it out where somebody else gets the file: with it they could open your clients’ pages."
					/>
					<div>
						<Button
							disabled={act.busy}
							onClick={() =>
								act.run(() =>
									answer(api.POST("/api/archive", { body: { withLinks } })),
								)
							}
						>
							{act.busy ? "One moment" : "Make an archive"}
						</Button>
					</div>
				</>
			)}
		</div>
	);
}

/** How far it has come. */
function Running({ run, onStop }: { run: ArchiveRunDto; onStop: () => void }) {
	return (
		<div className="grid gap-2">
			<Progress label="The archive" percent={run.percent ?? undefined} />
			<p className="num under" role="status">
				{run.words} You can go on working meanwhile.
			</p>
			<div>
				<Button onClick={onStop}>Stop making it</Button>
			</div>
		</div>
	);
}
