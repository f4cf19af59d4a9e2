import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import { answer, api } from "../../api/client";
import type { ListSort } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Choice, Choices } from "../../ui/Choice";
import { Refused } from "../../ui/Refused";
import { TextField } from "../../ui/TextField";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";
import { sortWords } from "./words";

const about: Record<ListSort, string> = {
	Rows: "rows and columns, with sums: guests, suppliers, a budget, a plan of posts",
	Board: "pictures with words, to find a look together",
	Notes: "paragraphs that both of you can write",
};

/** Begins a list, a mood board or shared notes, and goes there. */
export function BeginList({
	project,
	onClose,
}: {
	/** Left out for one that is kept to be laid. */
	project?: number;
	onClose: () => void;
}) {
	const [name, setName] = useState("");
	const [sort, setSort] = useState<ListSort>("Rows");
	const act = useAct();
	const navigate = useNavigate();
	const begin = (event: FormEvent) => {
		event.preventDefault();
		act.run(async () => {
			const body = { name, sort };
			const { id } = await answer(
				project
					? api.POST("/api/projects/{id}/lists", {
							params: { path: { id: project } },
							body,
						})
					: api.POST("/api/lists", { body }),
			);
			navigate(project ? `/projects/${project}/lists/${id}` : `/lists/${id}`);
		});
	};
	return (
		<Window title="Begin one" open onClose={onClose}>
			<form onSubmit={begin} className="grid gap-3">
				<Choices
					label="What it is"
					value={sort}
					onChange={(to) => setSort(to as ListSort)}
				>
					{(Object.keys(about) as ListSort[]).map((one) => (
						<Choice key={one} value={one} under={about[one]}>
							{sortWords[one]}
						</Choice>
					))}
				</Choices>
				<TextField
					label="Name"
					value={name}
					wrong={act.refusal?.of("name")}
					onChange={(e) => setName(e.target.value)}
				/>
				<Refused of={act.refusal} />
				<div>
					<Button kind="go" type="submit" disabled={act.busy}>
						Begin it
					</Button>
				</div>
			</form>
		</Window>
	);
}
