import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import { answer, api } from "../../api/client";
import type { KindPageDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { useAct } from "../useAct";

/** A new routine: empty, or read from text. */
export function NewRoutine({ kind }: { kind: KindPageDto }) {
	const [name, setName] = useState("");
	const [text, setText] = useState<string>();
	const act = useAct();
	const navigate = useNavigate();
	async function begin(event: FormEvent) {
		event.preventDefault();
		let id = 0;
		const made = await act.run(async () => {
			id = (
				await answer(
					api.POST("/api/routines", {
						body: {
							kind: kind.id,
							name: text === undefined ? name : null,
							text: text ?? null,
							copy: null,
						},
					}),
				)
			).id;
		});
		if (made) navigate(`/templates/routines/${id}`);
	}
	return (
		<form onSubmit={begin} className="grid gap-2 pt-3">
			{text === undefined ? (
				<div className="max-w-sm">
					<TextField
						label="A new routine"
						placeholder="Its name"
						value={name}
						wrong={act.refusal?.of("name")}
						onChange={(e) => setName(e.target.value)}
					/>
				</div>
			) : (
				<TextArea
					label="A routine as text"
					rows={10}
					className="font-mono text-[13.5px]"
					value={text}
					wrong={act.refusal?.of("text")}
					onChange={(e) => setText(e.target.value)}
				/>
			)}
			<Refused of={act.refusal} />
			<div className="flex gap-2">
				<Button type="submit" disabled={act.busy || !(text ?? name).trim()}>
					Begin the routine
				</Button>
				<Button onClick={() => setText(text === undefined ? "" : undefined)}>
					{text === undefined ? "Paste one as text" : "Without text"}
				</Button>
			</div>
		</form>
	);
}
