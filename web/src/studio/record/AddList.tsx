import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../../api/client";
import type { RecordDto, TaskListDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Fold } from "../../ui/Fold";
import { Refused } from "../../ui/Refused";
import { Shown } from "../../ui/Shown";
import { Tick } from "../../ui/Tick";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";

/** Makes the tasks of lists, in the order they are shown, without those that do not apply. */
export function AddList({
	record,
	onClose,
}: {
	record: RecordDto;
	onClose: () => void;
}) {
	const lists = useQuery({
		queryKey: ["task-lists"],
		queryFn: () => answer(api.GET("/api/task-lists")),
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
	lists: readonly TaskListDto[];
	onClose: () => void;
}) {
	// which tasks of which list are wanted, by their places
	const [wanted, setWanted] = useState<Record<string, number[]>>({});
	const act = useAct();
	const count = Object.values(wanted).reduce((sum, one) => sum + one.length, 0);
	const places = (list: TaskListDto) => list.items.map((_, i) => i);
	async function add() {
		const added = await act.run(async () => {
			for (const list of lists) {
				const chosen = wanted[list.key] ?? [];
				if (chosen.length > 0)
					await answer(
						api.POST("/api/projects/{id}/task-lists", {
							params: { path: { id: record.id } },
							body: {
								list: list.key,
								leave: places(list).filter((place) => !chosen.includes(place)),
							},
						}),
					);
			}
		});
		if (added) onClose();
	}
	return (
		<div className="grid gap-3">
			{lists.map((list) => (
				<div key={list.key} className="border-b border-hair pb-2">
					<Tick
						label={list.name}
						className="font-[600]"
						checked={(wanted[list.key]?.length ?? 0) > 0}
						onChange={(checked) =>
							setWanted({
								...wanted,
								[list.key]: checked ? places(list) : [],
							})
						}
					/>
					<Fold
						className="pl-6"
						line={
							<span className="under">
								{list.items.length} task{list.items.length === 1 ? "" : "s"}
							</span>
						}
					>
						{list.items.map((item, i) => (
							<Tick
								key={i}
								label={item.title}
								className="py-0.5 text-[14.3px]"
								checked={wanted[list.key]?.includes(i) ?? false}
								onChange={(checked) => {
									const before = wanted[list.key] ?? [];
									setWanted({
										...wanted,
										[list.key]: checked
											? [...before, i]
											: before.filter((place) => place !== i),
									});
								}}
							/>
						))}
					</Fold>
				</div>
			))}
			{lists.length === 0 && (
				<p className="text-soft">
					There is no list yet. Begin one under Templates, Task lists.
				</p>
			)}
			<Refused of={act.refusal} />
			<div>
				<Button kind="go" disabled={act.busy || count === 0} onClick={add}>
					{count === 0
						? "Choose what applies"
						: `Make ${count} task${count === 1 ? "" : "s"}`}
				</Button>
			</div>
		</div>
	);
}
