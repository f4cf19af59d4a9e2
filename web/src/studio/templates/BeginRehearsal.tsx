import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import { answer, api } from "../../api/client";
import type { KindDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { DateField } from "../../ui/DateField";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { useAct } from "../useAct";

export function Begin({ kinds }: { kinds: readonly KindDto[] }) {
	const [said, setSaid] = useState({
		kind: String(kinds[0]?.id ?? ""),
		name: "",
		date: "",
		toOwner: false,
	});
	const act = useAct();
	const navigate = useNavigate();
	async function begin(event: FormEvent) {
		event.preventDefault();
		let id = 0;
		const made = await act.run(async () => {
			id = (
				await answer(
					api.POST("/api/rehearsals", {
						body: {
							kind: Number(said.kind),
							name: said.name,
							date: said.date || null,
							toOwner: said.toOwner,
						},
					}),
				)
			).id;
		});
		if (made) navigate(`/projects/${id}`);
	}
	return (
		<form onSubmit={begin} className="grid gap-3 pt-4">
			<div className="grid gap-3 md:grid-cols-3">
				<TextField
					label="Whom you make up"
					placeholder="A name"
					value={said.name}
					wrong={act.refusal?.of("name")}
					onChange={(e) => setSaid({ ...said, name: e.target.value })}
				/>
				<Select
					label="Kind of work"
					value={said.kind}
					wrong={act.refusal?.of("kind")}
					onChange={(e) => setSaid({ ...said, kind: e.target.value })}
				>
					{kinds.map((kind) => (
						<option key={kind.id} value={kind.id}>
							{kind.name}
						</option>
					))}
				</Select>
				<DateField
					label="The date that matters"
					value={said.date}
					onChange={(day) => setSaid({ ...said, date: day })}
				/>
			</div>
			<Tick
				label="Send its letters to my own address"
				checked={said.toOwner}
				onChange={(checked) => setSaid({ ...said, toOwner: checked })}
			/>
			<Refused of={act.refusal} />
			<div>
				<Button type="submit" disabled={act.busy || !said.name.trim()}>
					Begin the rehearsal
				</Button>
			</div>
		</form>
	);
}
