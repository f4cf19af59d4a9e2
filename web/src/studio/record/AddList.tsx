import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../../api/client";
import type { LaidListDto, RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Shown } from "../../ui/Shown";
import { Tick } from "../../ui/Tick";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";

/** Lays lists on the project: several at once, in the order they are shown, with the days their tasks will have; what does not apply is left out before. */
export function AddList({
	record,
	onClose,
}: {
	record: RecordDto;
	onClose: () => void;
}) {
	const lists = useQuery({
		queryKey: ["project", record.id, "lists"],
		queryFn: () =>
			answer(
				api.GET("/api/projects/{id}/task-lists", {
					params: { path: { id: record.id } },
				}),
			),
	});
	return (
		<Window title="Tasks of a list" open wide onClose={onClose}>
			<Shown query={lists}>
				{(data) => <Lists record={record} lists={data} onClose={onClose} />}
			</Shown>
		</Window>
	);
}

function Lists({
	record,
	lists,
	onClose,
}: {
	record: RecordDto;
	lists: readonly LaidListDto[];
	onClose: () => void;
}) {
	// which tasks of which list are wanted, by their places
	const [wanted, setWanted] = useState<Record<string, number[]>>({});
	const act = useAct();
	const chosen = lists.filter((list) => (wanted[list.key] ?? []).length > 0);
	const count = chosen.reduce((sum, one) => sum + wanted[one.key]!.length, 0);
	async function lay() {
		const body = {
			lists: chosen.map((list) => ({
				list: list.key,
				leave: list.tasks.flatMap((_, at) =>
					wanted[list.key]!.includes(at) ? [] : [at],
				),
			})),
		};
		const laid = await act.run(() =>
			answer(
				api.POST("/api/projects/{id}/task-lists", {
					params: { path: { id: record.id } },
					body,
				}),
			),
		);
		if (laid) onClose();
	}
	return (
		<div className="grid gap-3">
			{lists.map((list) => (
				<List
					key={list.key}
					list={list}
					wanted={wanted[list.key] ?? []}
					onChange={(places) => setWanted({ ...wanted, [list.key]: places })}
				/>
			))}
			{lists.length === 0 && (
				<p className="text-soft">
					There is no list yet. Begin one under Templates, Task lists.
				</p>
			)}
			<Refused of={act.refusal} />
			<div>
				<Button kind="go" disabled={act.busy || count === 0} onClick={lay}>
					{count === 0
						? "Choose what applies"
						: `Make ${count} task${count === 1 ? "" : "s"}`}
				</Button>
			</div>
		</div>
	);
}

function List({
	list,
	wanted,
	onChange,
}: {
	list: LaidListDto;
	wanted: readonly number[];
	onChange: (places: number[]) => void;
}) {
	const all = list.tasks.map((_, at) => at);
	return (
		<div className="border-b border-hair pb-2">
			<Tick
				label={list.name}
				className="font-[600]"
				under={`${list.tasks.length} task${list.tasks.length === 1 ? "" : "s"}`}
				checked={wanted.length > 0}
				onChange={(checked) => onChange(checked ? all : [])}
			/>
			{wanted.length > 0 &&
				list.tasks.map((task, at) => (
					<div key={at} className="flex gap-3 py-0.5 pl-6 text-[14.3px]">
						<Tick
							label={task.title}
							under={task.isClients ? "for the client" : undefined}
							className="min-w-0 flex-1"
							checked={wanted.includes(at)}
							onChange={(checked) =>
								onChange(
									all.filter((one) =>
										one === at ? checked : wanted.includes(one),
									),
								)
							}
						/>
						<span className="shrink-0 text-right">
							<span className={task.late ? "font-[650]" : ""}>
								{task.day ?? "no day yet"}
								{task.late && ", over already"}
							</span>
							<span className="under block">{task.counted}</span>
						</span>
					</div>
				))}
		</div>
	);
}
