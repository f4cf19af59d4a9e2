import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import { answer, api } from "../../api/client";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";

/** A kind of work begun from nothing, or all kinds of a starting set. */
export function NewKind({ onClose }: { onClose: () => void }) {
	const [said, setSaid] = useState({ name: "", mainDate: "", usual: true });
	const [set, setSet] = useState("");
	const act = useAct();
	const navigate = useNavigate();
	const sets = useQuery({
		queryKey: ["starting-sets"],
		queryFn: () => answer(api.GET("/api/starting-sets")),
	});
	async function make(event: FormEvent) {
		event.preventDefault();
		let id = 0;
		const made = await act.run(async () => {
			id = (
				await answer(
					set
						? api.POST("/api/starting-sets/{key}", {
								params: { path: { key: set } },
							})
						: api.POST("/api/kinds", { body: said }),
				)
			).id;
		});
		if (!made) return;
		onClose();
		navigate(`/templates/${id}`);
	}
	return (
		<Window title="A kind of work" open onClose={onClose}>
			<form onSubmit={make} className="grid gap-3">
				<Select
					label="Begin with"
					value={set}
					onChange={(e) => setSet(e.target.value)}
				>
					<option value="">nothing</option>
					{sets.data?.sets.map((one) => (
						<option key={one.key} value={one.key}>
							the set {one.name}: {one.kinds.join(", ")}
						</option>
					))}
				</Select>
				{!set && (
					<>
						<TextField
							label="Name"
							value={said.name}
							wrong={act.refusal?.of("name")}
							onChange={(e) => setSaid({ ...said, name: e.target.value })}
						/>
						<TextField
							label="The date that matters is called"
							hint="such as wedding day; left empty for work without one"
							value={said.mainDate}
							wrong={act.refusal?.of("mainDate")}
							onChange={(e) => setSaid({ ...said, mainDate: e.target.value })}
						/>
						<Tick
							label="With the usual letters and follow-ups"
							checked={said.usual}
							onChange={(usual) => setSaid({ ...said, usual })}
						/>
					</>
				)}
				<Refused of={act.refusal} />
				<div>
					<Button
						kind="go"
						type="submit"
						disabled={act.busy || (!set && !said.name.trim())}
					>
						{set ? "Add the set" : "Make the kind"}
					</Button>
				</div>
			</form>
		</Window>
	);
}
