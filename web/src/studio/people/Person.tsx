import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import type { PersonEventDto, PersonPageDto } from "../../api/schema";
import { Alert } from "../../ui/Fields";
import { get, post, upload } from "../../ui/http";
import { Shown } from "../../ui/Shown";
import { Window } from "../../ui/Window";
import { Labels } from "../Labels";
import { useAct } from "../useAct";
import { EditPerson, PersonFields } from "./EditPerson";
import { Matches } from "./Matches";
import { ago, sorts } from "./People";

/** One person with all that is known of them over their projects. */
export default function Person() {
	const id = useParams().id!;
	const person = useQuery({
		queryKey: ["person", id],
		queryFn: () => get<PersonPageDto>(`/api/people/${id}`),
	});
	return (
		<Shown query={person}>
			{(data) => <Page key={data.id} person={data} />}
		</Shown>
	);
}

function Page({ person }: { person: PersonPageDto }) {
	const [editing, setEditing] = useState(false);
	const [splitting, setSplitting] = useState(false);
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
					<button
						type="button"
						className="btn btn-go"
						onClick={() => setEditing(true)}
					>
						Change
					</button>
					<label className="btn">
						Picture or logo
						<input
							type="file"
							accept="image/*"
							aria-label="Picture or logo"
							className="sr-only"
							onChange={(e) => {
								const file = e.target.files?.[0];
								if (file)
									act.run(() =>
										upload(
											`/api/people/${person.id}/picture?name=${encodeURIComponent(file.name)}`,
											file,
										),
									);
							}}
						/>
					</label>
					<a className="btn" href={`/api/people/${person.id}/card.vcf`}>
						vCard
					</a>
					{person.projects.filter((one) => !one.part).length > 1 && (
						<button
							type="button"
							className="btn"
							onClick={() => setSplitting(true)}
						>
							These are two people
						</button>
					)}
				</div>
			</div>
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
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
							<button
								type="button"
								className="link"
								disabled={act.busy}
								onClick={() =>
									act.run(() => post(`/api/joins/${join.undo}/undo`))
								}
							>
								undo this
							</button>
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
		</main>
	);
}

function Events({
	title,
	events,
}: {
	title: string;
	events: readonly PersonEventDto[];
}) {
	if (events.length === 0) return null;
	return (
		<section aria-label={title}>
			<h2 className="rule pb-1.5">{title}</h2>
			{events.map((event, i) => (
				<Link
					key={`${event.opens}${i}`}
					to={`/projects/${event.project}${event.opens ? `?open=${event.opens}` : ""}`}
					className="flex gap-3 border-b border-hair py-1.5"
				>
					<span>{event.words}</span>
					<span className="ml-auto whitespace-nowrap text-soft">
						{event.when}
					</span>
				</Link>
			))}
		</section>
	);
}

/** Some of the projects are somebody else's. */
function Split({
	person,
	onClose,
}: {
	person: PersonPageDto;
	onClose: () => void;
}) {
	const [projects, setProjects] = useState<number[]>([]);
	const [other, setOther] = useState({
		...person.details,
		name: "",
		greeted: null,
		edition: 0,
	});
	const act = useAct();
	async function split(event: FormEvent) {
		event.preventDefault();
		const done = await act.run(() =>
			post(`/api/people/${person.id}/split`, { projects, person: other }),
		);
		if (done) onClose();
	}
	return (
		<Window title="These are two people" open onClose={onClose} wide>
			<form onSubmit={split} className="grid gap-3">
				<fieldset>
					<legend className="label">
						Projects that are somebody else's; links of {person.details.name} to
						them open nothing any more
					</legend>
					{person.projects
						.filter((one) => !one.part)
						.map((one) => (
							<label key={one.id} className="flex gap-2.5 py-0.5">
								<input
									type="checkbox"
									className="mt-1 size-4 accent-(--ink)"
									checked={projects.includes(one.id)}
									onChange={(e) =>
										setProjects(
											e.target.checked
												? [...projects, one.id]
												: projects.filter((id) => id !== one.id),
										)
									}
								/>
								{one.title}
							</label>
						))}
				</fieldset>
				<PersonFields
					person={other}
					wrong={(field) => act.refusal?.of(field)}
					onChange={(next) => setOther(next as typeof other)}
				/>
				{act.refusal && <Alert>{act.refusal.message}</Alert>}
				<button type="submit" className="btn btn-go" disabled={act.busy}>
					Take them apart
				</button>
			</form>
		</Window>
	);
}
