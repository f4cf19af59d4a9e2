import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import type { FormDto, KindPageDto, KindPart } from "../../api/schema";
import { Alert, TextField } from "../../ui/Fields";
import { get, post } from "../../ui/http";
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
		queryFn: () => get<FormDto[]>(`/api/kinds/${kind.id}/forms`),
	});
	async function copy(event: FormEvent) {
		event.preventDefault();
		let made = 0;
		const done = await act.run(async () => {
			const result = await post<{ id: number }>(`/api/kinds/${kind.id}/copy`, {
				name,
				without: parts,
				withoutRoutines: routines,
				withoutForms: forms,
			});
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
					<Tick
						label={`Services (${kind.services.length})`}
						left={parts}
						one="Services"
						onChange={setParts}
					/>
					<Tick
						label="Contract"
						left={parts}
						one="Contract"
						onChange={setParts}
					/>
					{all.data?.map((form) => (
						<Tick
							key={form.id}
							label={`Form “${form.title}”`}
							left={forms}
							one={form.id}
							onChange={setForms}
						/>
					))}
					{kind.routines.map((routine) => (
						<Tick
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
				{act.refusal && <Alert>{act.refusal.message}</Alert>}
				<div>
					<button
						type="submit"
						className="btn btn-go"
						disabled={act.busy || !name.trim()}
					>
						Make the kind
					</button>
				</div>
			</form>
		</Window>
	);
}

function Tick<T>({
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
		<label className="flex gap-2.5">
			<input
				type="checkbox"
				className="mt-1 size-4 accent-(--ink)"
				checked={!left.includes(one)}
				onChange={(e) =>
					onChange(
						e.target.checked
							? left.filter((other) => other !== one)
							: [...left, one],
					)
				}
			/>
			{label}
		</label>
	);
}
