import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import { answer, api } from "../../api/client";
import type { KindPageDto, KindPart } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";

/** A new kind as a copy, without the parts that are left out. */
export function CopyKind({
	kind,
	onClose,
}: {
	kind: KindPageDto;
	onClose: () => void;
}) {
	const [name, setName] = useState("");
	const [parts, setParts] = useState<KindPart[]>([]);
	const [routines, setRoutines] = useState<number[]>([]);
	const [forms, setForms] = useState<number[]>([]);
	const act = useAct();
	const navigate = useNavigate();
	const all = useQuery({
		queryKey: ["forms", kind.id],
		queryFn: () =>
			answer(
				api.GET("/api/kinds/{id}/forms", { params: { path: { id: kind.id } } }),
			),
	});
	async function copy(event: FormEvent) {
		event.preventDefault();
		let made = 0;
		const done = await act.run(async () => {
			const result = await answer(
				api.POST("/api/kinds/{id}/copy", {
					params: { path: { id: kind.id } },
					body: {
						name,
						without: parts,
						withoutRoutines: routines,
						withoutForms: forms,
					},
				}),
			);
			made = result.id;
		});
		if (!done) return;
		onClose();
		navigate(`/templates/${made}`);
	}
	return (
		<Window title={`A kind like ${kind.name}`} open onClose={onClose}>
			<form onSubmit={copy} className="grid gap-3">
				<TextField
					label="Name of the new kind"
					value={name}
					wrong={act.refusal?.of("name")}
					onChange={(e) => setName(e.target.value)}
				/>
				<fieldset className="grid gap-1">
					<legend className="label">What comes along</legend>
					<Along
						label={`Services (${kind.services.length})`}
						left={parts}
						one="Services"
						onChange={setParts}
					/>
					<Along
						label="Contract"
						left={parts}
						one="Contract"
						onChange={setParts}
					/>
					{all.data?.map((form) => (
						<Along
							key={form.id}
							label={`Form “${form.title}”`}
							left={forms}
							one={form.id}
							onChange={setForms}
						/>
					))}
					{kind.routines.map((routine) => (
						<Along
							key={routine.id}
							label={`Routine “${routine.name}”`}
							left={routines}
							one={routine.id}
							onChange={setRoutines}
						/>
					))}
				</fieldset>
				<p className="under">
					Details, brief and phases come along. Forms are closed and routines
					off until you have looked at them.
				</p>
				<Refused of={act.refusal} />
				<div>
					<Button kind="go" type="submit" disabled={act.busy || !name.trim()}>
						Make the kind
					</Button>
				</div>
			</form>
		</Window>
	);
}

function Along<T>({
	label,
	left,
	one,
	onChange,
}: {
	label: string;
	left: T[];
	one: T;
	onChange: (left: T[]) => void;
}) {
	return (
		<Tick
			label={label}
			checked={!left.includes(one)}
			onChange={(checked) =>
				onChange(
					checked ? left.filter((other) => other !== one) : [...left, one],
				)
			}
		/>
	);
}
