import { type FormEvent, useState } from "react";
import { Link } from "react-router";
import { answer, api } from "../../api/client";
import type { ListReader, OwnListDto, PagePart } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";
import { useAct } from "../useAct";
import { readerWords } from "./words";

const partOf: Record<OwnListDto["list"]["sort"], PagePart> = {
	Rows: "Lists",
	Board: "Boards",
	Notes: "Notes",
};

/** What it is called and who has it in hand; that alone shows nothing before its part of the client page is open. */
export function NameAndReader({
	own,
	naming,
}: {
	own: OwnListDto;
	naming: boolean;
}) {
	const [name, setName] = useState(own.list.name);
	const [reader, setReader] = useState<ListReader>(own.reader);
	const act = useAct();
	const changed = name !== own.list.name || reader !== own.reader;
	const keep = (event: FormEvent) => {
		event.preventDefault();
		act.run(() =>
			answer(
				api.PUT("/api/lists/{list}", {
					params: { path: { list: own.list.id } },
					body: {
						edition: own.edition,
						name,
						reader,
						columns: own.list.sort === "Rows" ? [...own.list.columns] : [],
					},
				}),
			),
		);
	};
	return (
		<form onSubmit={keep} className="flex flex-wrap items-end gap-3 pb-4">
			{naming && (
				<div className="w-full max-w-[280px]">
					<TextField
						label="Name"
						autoFocus
						value={name}
						wrong={act.refusal?.of("name")}
						onChange={(e) => setName(e.target.value)}
					/>
				</div>
			)}
			{own.projectId && (
				<div>
					<Select
						label="Who sees it"
						value={reader}
						wrong={act.refusal?.of("reader")}
						onChange={(e) => setReader(e.target.value as ListReader)}
					>
						{Object.entries(readerWords).map(([one, words]) => (
							<option key={one} value={one}>
								{words}
							</option>
						))}
					</Select>
				</div>
			)}
			{changed && (
				<Button kind="go" type="submit" disabled={act.busy}>
					Keep it
				</Button>
			)}
			{own.projectId && own.reader !== "Owner" && !changed && (
				<p className="pb-1.5">
					{own.isOpen ? (
						<>
							It stands on the client’s page.{" "}
							<Button asChild kind="word">
								<Link to={`/projects/${own.projectId}/as-client`}>
									See it as they do
								</Link>
							</Button>
						</>
					) : (
						<>
							Its part of the client’s page is not open yet.{" "}
							<Button asChild kind="word">
								<Link
									to={`/projects/${own.projectId}/as-client?with=${partOf[own.list.sort]}`}
								>
									Look and open
								</Link>
							</Button>
						</>
					)}
				</p>
			)}
			<Refused of={act.refusal} />
		</form>
	);
}
