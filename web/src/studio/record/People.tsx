import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { answer, api } from "../../api/client";
import type { PartOfPersonDto, PersonPart, RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";
import { Labels } from "../Labels";
import { ChangePerson } from "../people/ChangePerson";
import { useAct } from "../useAct";
import { Block } from "./Block";

const parts: Record<PersonPart, string> = {
	Decides: "decides",
	Pays: "pays",
	GetsMail: "gets the letters",
	ReadsAlong: "reads along",
	Supplies: "supplies",
};

/** The client, and everybody with a part in the project. */
export function People({ record }: { record: RecordDto }) {
	const [adding, setAdding] = useState(false);
	const { client } = record.head;
	return (
		<Block
			title="People"
			aside={
				<Button
					kind="word"
					aria-expanded={adding}
					onClick={() => setAdding(!adding)}
				>
					{adding ? "close" : "add somebody"}
				</Button>
			}
		>
			<p className="text-[14.3px]">
				<Link
					className="font-[650] hover:underline"
					to={`/people/${client.id}`}
				>
					{client.name}
				</Link>
				{client.organisation && `, ${client.organisation}`}{" "}
				<ChangePerson id={client.id} name={client.name} />
			</p>
			<p className="text-[14.3px] break-all text-soft">
				{[client.mail, client.phone, client.profile].filter(Boolean).join(", ")}
			</p>
			{record.involved.people.map((one) => (
				<Part key={`${one.person}${one.part}`} record={record} part={one} />
			))}
			{record.head.source && (
				<p className="under pt-1">found you by {record.head.source}</p>
			)}
			{adding && <Add record={record} onDone={() => setAdding(false)} />}
			<div className="pt-2">
				<Labels labels={record.about.labels} on={{ project: record.id }} />
			</div>
		</Block>
	);
}

function Part({ record, part }: { record: RecordDto; part: PartOfPersonDto }) {
	const act = useAct();
	const [address, setAddress] = useState<string>();
	return (
		<div className="pt-1 text-[14.3px]">
			<Link className="hover:underline" to={`/people/${part.person}`}>
				{part.name}
			</Link>{" "}
			<span className="text-soft">{part.words}</span>{" "}
			<ChangePerson id={part.person} name={part.name} />{" "}
			<Button
				kind="word"
				size="small"
				onClick={() =>
					act.run(() =>
						answer(
							api.POST("/api/projects/{id}/people", {
								params: { path: { id: record.id } },
								body: {
									person: part.person,
									part: part.part,
									has: false,
								},
							}),
						),
					)
				}
			>
				no more<span className="sr-only">: {part.name}</span>
			</Button>{" "}
			{part.part !== "Supplies" && (
				<Button
					kind="word"
					size="small"
					onClick={async () =>
						setAddress(
							(
								await answer(
									api.GET("/api/projects/{id}/people/{person}/link", {
										params: { path: { id: record.id, person: part.person } },
									}),
								)
							).address,
						)
					}
				>
					their page
				</Button>
			)}
			{address && (
				<TextField
					label={`The address of ${part.name}'s page`}
					readOnly
					value={address}
					onFocus={(e) => e.target.select()}
				/>
			)}
			<Refused of={act.refusal} />
		</div>
	);
}

function Add({ record, onDone }: { record: RecordDto; onDone: () => void }) {
	const [words, setWords] = useState("");
	const [part, setPart] = useState<PersonPart>("GetsMail");
	const act = useAct();
	const found = useQuery({
		queryKey: ["over", "people", "part", words],
		queryFn: () =>
			answer(api.GET("/api/people", { params: { query: { words } } })),
		enabled: words.trim().length > 1,
	});
	const rows = words.trim().length > 1 ? (found.data?.rows ?? []) : [];
	return (
		<div className="grid gap-2 pt-2">
			<Select
				label="Their part"
				value={part}
				onChange={(e) => setPart(e.target.value as PersonPart)}
			>
				{Object.entries(parts).map(([one, said]) => (
					<option key={one} value={one}>
						{said}
					</option>
				))}
			</Select>
			<TextField
				label="Who"
				hint="somebody under People"
				value={words}
				onChange={(e) => setWords(e.target.value)}
			/>
			{rows.slice(0, 5).map((one) => (
				<Button
					kind="line"
					className="border-b border-hair py-1 hover:bg-plaster"
					key={one.id}
					disabled={act.busy}
					onClick={async () => {
						const done = await act.run(() =>
							answer(
								api.POST("/api/projects/{id}/people", {
									params: { path: { id: record.id } },
									body: {
										person: one.id,
										part,
										has: true,
									},
								}),
							),
						);
						if (done) onDone();
					}}
				>
					{one.name} <span className="under">{one.reach}</span>
				</Button>
			))}
			{found.data && rows.length === 0 && (
				<p className="under">
					Nobody of that name. Add them under People first.
				</p>
			)}
			<Refused of={act.refusal} />
		</div>
	);
}
