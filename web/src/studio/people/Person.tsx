import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import { answer, api, upload } from "../../api/client";
import type { PersonPageDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { FilePick } from "../../ui/FilePick";
import { Refused } from "../../ui/Refused";
import { ShownPage } from "../../ui/Shown";
import { Labels } from "../Labels";
import { useAct } from "../useAct";
import { EditPerson } from "./EditPerson";
import { Erase } from "./Erase";
import { Events } from "./Events";
import { Matches } from "./Matches";
import { ago, sorts } from "./PeopleTable";
import { SignedOf } from "./SignedOf";

import { Split } from "./Split";

/** One person with all that is known of them over their projects. */
export default function Person() {
	const id = Number(useParams().id);
	const [leaving, setLeaving] = useState(false);
	const person = useQuery({
		// who is being erased is not asked for again
		enabled: !leaving,
		queryKey: ["over", "person", id],
		queryFn: () =>
			answer(api.GET("/api/people/{id}", { params: { path: { id } } })),
	});
	return (
		<ShownPage query={person} usual={<Link to="/people">All people</Link>}>
			{(data) => <Page key={data.id} person={data} onLeaving={setLeaving} />}
		</ShownPage>
	);
}

function Page({
	person,
	onLeaving,
}: {
	person: PersonPageDto;
	onLeaving: (leaving: boolean) => void;
}) {
	const [editing, setEditing] = useState(false);
	const [splitting, setSplitting] = useState(false);
	const [erasing, setErasing] = useState(false);
	const act = useAct();
	const { details } = person;
	useEffect(() => {
		document.title = `${details.name}, Gesamt`;
	}, [details.name]);
	const reach = [details.mail, details.phone, details.profile].filter(Boolean);
	return (
		<main className="max-w-5xl px-5 pb-8">
			<div className="flex flex-wrap items-end gap-4 pt-4 pb-3">
				{person.hasPicture && (
					<img
						src={`/api/people/${person.id}/picture`}
						alt=""
						className="size-14 border border-hair object-cover"
					/>
				)}
				<div>
					<h1>{details.name}</h1>
					<p className="text-soft">
						{sorts[details.sort]}
						{details.organisation && `, ${details.organisation}`}
						{person.lastContact &&
							`. Last contact ${person.lastContact}, ${ago(person.daysSince ?? 0)}`}
						{person.came && `. Came by ${person.came}`}
					</p>
				</div>
				<div className="ml-auto flex flex-wrap gap-2">
					<Button kind="go" onClick={() => setEditing(true)}>
						Change
					</Button>
					<FilePick
						accept="image/*"
						name="Picture or logo"
						onFiles={([file]) => {
							if (file)
								act.run(() =>
									upload(
										`/api/people/${person.id}/picture?name=${encodeURIComponent(file.name)}`,
										file,
									),
								);
						}}
					>
						Picture or logo
					</FilePick>
					<Button asChild>
						<a href={`/api/people/${person.id}/card.vcf`}>vCard</a>
					</Button>
					<Button asChild>
						<a
							href={`/api/people/${person.id}/copy.zip`}
							download
							title="All that they told you and that you sent or showed them, to be handed to them. Nothing that is yours alone is in it"
						>
							A copy for them
						</a>
					</Button>
					{person.projects.filter((one) => !one.part).length > 1 && (
						<Button onClick={() => setSplitting(true)}>
							These are two people
						</Button>
					)}
					<Button onClick={() => setErasing(true)}>Erase</Button>
				</div>
			</div>
			<Refused of={act.refusal} />
			<Matches person={person.id} matches={person.matches} />
			<div className="grid gap-x-8 gap-y-6 md:grid-cols-[1.4fr_1fr]">
				<div className="grid content-start gap-6">
					<section aria-label="Projects">
						<h2 className="rule pb-1.5">Projects</h2>
						{person.projects.map((one) => (
							<Link
								key={`${one.id}${one.part}`}
								to={`/projects/${one.id}`}
								data-walk
								className="grid grid-cols-[1fr_auto] gap-x-3 border-b border-hair py-1.5"
							>
								<b className="font-[650]">{one.title}</b>
								<span className="num text-[13.5px]">{one.agreed}</span>
								<span className="under col-span-2">
									{one.kind}
									{one.part && `, ${one.part}`}, {one.standing.toLowerCase()}
									{one.date && `, ${one.date}`}
								</span>
							</Link>
						))}
						{person.projects.length === 0 && (
							<p className="py-3 text-soft">No project yet.</p>
						)}
					</section>
					<p className="pt-3">
						<Button asChild kind="word">
							<Link to={`/money/invoices?client=${person.id}&show=All`}>
								Their invoices
							</Link>
						</Button>
					</p>
					<SignedOf person={person.id} />
					<Events title="Letters" events={person.letters} />
					<Events title="Meetings" events={person.meetings} />
				</div>
				<div className="panel self-start px-4 py-3">
					<dl className="grid gap-2 text-[14.3px]">
						<div>
							<dt className="under">Reach</dt>
							{reach.map((one) => (
								<dd key={one} className="break-all">
									{one}
								</dd>
							))}
						</div>
						{details.address && (
							<div>
								<dt className="under">Postal address</dt>
								<dd className="whitespace-pre-line">{details.address}</dd>
							</div>
						)}
						{details.taxNumber && (
							<div>
								<dt className="under">Tax number</dt>
								<dd>{details.taxNumber}</dd>
							</div>
						)}
						<div>
							<dt className="under">What they brought</dt>
							<dd>
								<span className="num">{person.agreed}</span> agreed, net;{" "}
								<span className="num">{person.paid}</span> paid
							</dd>
						</div>
						{details.notes && (
							<div>
								<dt className="under">Notes, yours alone</dt>
								<dd className="whitespace-pre-line">{details.notes}</dd>
							</div>
						)}
					</dl>
					<div className="pt-3">
						<Labels labels={person.labels} on={{ person: person.id }} />
					</div>
					{person.joins.map((join) => (
						<p key={join.undo} className="under pt-2">
							{join.words}.{" "}
							<Button
								kind="word"
								disabled={act.busy}
								onClick={() =>
									act.run(() =>
										answer(
											api.POST("/api/joins/{id}/undo", {
												params: { path: { id: join.undo } },
											}),
										),
									)
								}
							>
								undo this
							</Button>
						</p>
					))}
				</div>
			</div>
			{editing && (
				<EditPerson
					id={person.id}
					details={details}
					onClose={() => setEditing(false)}
				/>
			)}
			{splitting && (
				<Split person={person} onClose={() => setSplitting(false)} />
			)}
			{erasing && (
				<Erase
					id={person.id}
					onLeaving={onLeaving}
					onClose={() => setErasing(false)}
				/>
			)}
		</main>
	);
}
