import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { CountField } from "../../ui/CountField";
import { Refused } from "../../ui/Refused";
import { moved, Sortable, SortableItem } from "../../ui/Sortable";
import { TextField } from "../../ui/TextField";
import { useUndo } from "../../ui/Undo";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";

type Row = {
	key: string;
	name: string;
	was: string | null;
	days: number | null;
};

/** The phases of this one project, in another order, under other names, more or fewer; its kind stays as it is. */
export function ArrangePhases({
	record,
	onClose,
}: {
	record: RecordDto;
	onClose: () => void;
}) {
	const { phases } = record.sheet.work;
	const [rows, setRows] = useState<Row[]>(() =>
		phases.map((phase) => ({
			key: phase.name,
			name: phase.name,
			was: phase.name,
			days: phase.days,
		})),
	);
	const [next, setNext] = useState(1);
	const act = useAct();
	const offer = useUndo();
	const arrange = (to: Omit<Row, "key">[]) =>
		act.run(() =>
			answer(
				api.PUT("/api/projects/{id}/phases", {
					params: { path: { id: record.id } },
					body: { phases: to },
				}),
			),
		);
	async function keep(event: FormEvent) {
		event.preventDefault();
		if (!(await arrange(rows.map(({ key: _, ...row }) => row)))) return;
		offer({
			words: "Phases arranged for this project",
			// what was renamed goes back to its name, what was dropped comes back as a new one
			undo: () =>
				arrange(
					phases.map(({ name, days }) => ({
						name,
						days,
						was: rows.find((row) => row.was === name)?.name.trim() ?? null,
					})),
				),
		});
		onClose();
	}
	const set = (key: string, part: Partial<Row>) =>
		setRows(rows.map((row) => (row.key === key ? { ...row, ...part } : row)));
	return (
		<Window title="Phases of this project" open wide onClose={onClose}>
			<form onSubmit={keep} className="grid gap-3">
				<div className="flex gap-2 pl-[47px]" aria-hidden="true">
					<span className="label flex-1">Name</span>
					<span className="label w-24">Usual days</span>
					<span className="w-8" />
				</div>
				<Sortable
					label="Phases"
					className="grid gap-2"
					keys={rows.map((row) => row.key)}
					onMove={(from, to) => setRows(moved(rows, from, to))}
				>
					{rows.map((row, at) => (
						<SortableItem
							key={row.key}
							id={row.key}
							name={row.name || "the new phase"}
						>
							{(handle) => (
								<div className="flex items-start gap-2">
									{handle}
									<div className="min-w-0 flex-1">
										<TextField
											label={`Phase ${at + 1}`}
											hidden
											value={row.name}
											wrong={act.refusal?.of(`phases[${at}].name`)}
											onChange={(e) => set(row.key, { name: e.target.value })}
										/>
									</div>
									<div className="w-24">
										<CountField
											label={`Days of phase ${at + 1}`}
											hidden
											min={1}
											value={row.days}
											wrong={act.refusal?.of(`phases[${at}].days`)}
											onChange={(days) => set(row.key, { days })}
										/>
									</div>
									<Button
										kind="word"
										className="py-2 text-small"
										onClick={() =>
											setRows(rows.filter((one) => one.key !== row.key))
										}
									>
										drop<span className="sr-only">: {row.name}</span>
									</Button>
								</div>
							)}
						</SortableItem>
					))}
				</Sortable>
				<p className="under">
					The kind stays as it is. A phase that is dropped leaves its tasks
					without one.
				</p>
				<Refused of={act.refusal} />
				<div className="flex gap-2">
					<Button kind="go" type="submit" disabled={act.busy}>
						Keep the phases
					</Button>
					<Button
						onClick={() => {
							setRows([
								...rows,
								{ key: `new ${next}`, name: "", was: null, days: null },
							]);
							setNext(next + 1);
						}}
					>
						Add a phase
					</Button>
				</div>
			</form>
		</Window>
	);
}
