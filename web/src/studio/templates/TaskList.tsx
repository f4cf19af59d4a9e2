import { useState } from "react";
import { answer, api } from "../../api/client";
import type { ListItemDto, TaskListDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { TextField } from "../../ui/TextField";
import { useUndo } from "../../ui/Undo";
import { useAct } from "../useAct";
import { fresh } from "./newItem";
import { Item } from "./TaskItem";

export function List({
	list,
	onDone,
}: {
	list?: TaskListDto;
	onDone: () => void;
}) {
	const [name, setName] = useState(list?.name ?? "");
	const [items, setItems] = useState<ListItemDto[]>(list?.items ?? [fresh]);
	const act = useAct();
	const offer = useUndo();
	const set = (at: number, part: Partial<ListItemDto>) =>
		setItems(items.map((one, i) => (i === at ? { ...one, ...part } : one)));
	async function keep() {
		const save = { name, items, edition: list?.edition ?? 0 };
		const kept = await act.run(() =>
			list
				? answer(
						api.PUT("/api/task-lists/{key}", {
							params: { path: { key: list.key } },
							body: save,
						}),
					)
				: answer(api.POST("/api/task-lists", { body: save })),
		);
		if (kept) onDone();
	}
	const remove = (removed: boolean) =>
		act.run(() =>
			answer(
				api.POST("/api/task-lists/{key}/removed", {
					params: { path: { key: list?.key ?? "" } },
					body: { removed },
				}),
			),
		);
	return (
		<div className="grid gap-3 py-3">
			<TextField
				label="Name of the list"
				value={name}
				wrong={act.refusal?.of("name")}
				onChange={(e) => setName(e.target.value)}
			/>
			<ol className="grid gap-2">
				{items.map((item, i) => (
					<Item
						key={i}
						item={item}
						number={i + 1}
						wrong={(field) => act.refusal?.of(`items[${i}].${field}`)}
						onChange={(part) => set(i, part)}
						onTakeOut={() => setItems(items.filter((_, at) => at !== i))}
						onUp={
							i > 0
								? () => {
										const next = [...items];
										next.splice(i - 1, 0, next.splice(i, 1)[0]!);
										setItems(next);
									}
								: undefined
						}
					/>
				))}
			</ol>
			<Refused of={act.refusal} />
			<div className="flex flex-wrap gap-2">
				<Button onClick={() => setItems([...items, fresh])}>Add a task</Button>
				<Button kind="go" disabled={act.busy} onClick={keep}>
					Keep the list
				</Button>
				<Button onClick={onDone}>Close</Button>
				{list && (
					<Button
						className="ml-auto"
						disabled={act.busy}
						onClick={async () => {
							if (!(await remove(true))) return;
							offer({
								words: `“${list.name}” taken away`,
								undo: () => remove(false),
							});
							onDone();
						}}
					>
						Take it away
					</Button>
				)}
			</div>
		</div>
	);
}
