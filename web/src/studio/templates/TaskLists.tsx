import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { ListItemDto, SpanUnit, TaskListDto } from "../../api/schema";
import { Alert, Select, TextField } from "../../ui/Fields";
import { get, post, put } from "../../ui/http";
import { Shown } from "../../ui/Shown";
import { useUndo } from "../../ui/Undo";
import { useAct } from "../useAct";
import { units } from "./stepWords";

/** Tasks that are made together, each at its distance to the date that matters. */
export function TaskLists() {
	const [open, setOpen] = useState<string>();
	const lists = useQuery({
		queryKey: ["task-lists"],
		queryFn: () => get<TaskListDto[]>("/api/task-lists"),
	});
	return (
		<div className="grid content-start gap-4">
			<div className="flex items-baseline gap-3">
				<h2 className="text-[19px]">Task lists</h2>
				<span className="text-soft">made by a routine, or by hand</span>
				<button
					type="button"
					className="btn ml-auto"
					onClick={() => setOpen("new")}
				>
					Begin a list
				</button>
			</div>
			{open === "new" && (
				<div className="panel px-4">
					<List onDone={() => setOpen(undefined)} />
				</div>
			)}
			<Shown query={lists}>
				{(data) => (
					<ul className="border-t-[1.5px] border-ink">
						{data.map((list) => (
							<li key={list.key} className="border-b border-hair py-1.5">
								<button
									type="button"
									data-walk
									className="font-[600]"
									aria-expanded={open === list.key}
									onClick={() =>
										setOpen(open === list.key ? undefined : list.key)
									}
								>
									{list.name}
								</button>{" "}
								<span className="under">
									{list.items.length} task{list.items.length === 1 ? "" : "s"},{" "}
									{list.usedBy.length > 0
										? `made by ${list.usedBy.join(", ")}`
										: "by hand"}
								</span>
								{open === list.key && (
									<List
										key={list.edition}
										list={list}
										onDone={() => setOpen(undefined)}
									/>
								)}
							</li>
						))}
						{data.length === 0 && (
							<li className="py-3 text-soft">
								A list of tasks that always belong together would stand here.
							</li>
						)}
					</ul>
				)}
			</Shown>
		</div>
	);
}

function List({ list, onDone }: { list?: TaskListDto; onDone: () => void }) {
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
				? put(`/api/task-lists/${list.key}`, save)
				: post("/api/task-lists", save),
		);
		if (kept) onDone();
	}
	const remove = (removed: boolean) =>
		act.run(() => post(`/api/task-lists/${list?.key}/removed`, { removed }));
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
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
			<div className="flex gap-2">
				<button
					type="button"
					className="btn"
					onClick={() => setItems([...items, fresh])}
				>
					Add a task
				</button>
				<button
					type="button"
					className="btn btn-go"
					disabled={act.busy}
					onClick={keep}
				>
					Keep the list
				</button>
				<button type="button" className="btn" onClick={onDone}>
					Close
				</button>
				{list && (
					<button
						type="button"
						className="btn ml-auto"
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
					</button>
				)}
			</div>
		</div>
	);
}

const fresh: ListItemDto = { title: "", count: -14, unit: "Days", phase: null };

function Item({
	item,
	number,
	wrong,
	onChange,
	onTakeOut,
	onUp,
}: {
	item: ListItemDto;
	number: number;
	wrong: (field: string) => string | undefined;
	onChange: (part: Partial<ListItemDto>) => void;
	onTakeOut: () => void;
	onUp?: () => void;
}) {
	const before = item.count < 0;
	const size = Math.abs(item.count);
	return (
		<li className="grid items-end gap-2 md:grid-cols-[1fr_84px_130px_190px_auto]">
			<TextField
				label={`Task ${number}`}
				value={item.title}
				wrong={wrong("title")}
				onChange={(e) => onChange({ title: e.target.value })}
			/>
			<TextField
				label="How long"
				type="number"
				min={0}
				value={size}
				wrong={wrong("count")}
				onChange={(e) =>
					onChange({ count: (before ? -1 : 1) * Number(e.target.value) })
				}
			/>
			<Select
				label="Counted in"
				value={item.unit}
				wrong={wrong("unit")}
				onChange={(e) => onChange({ unit: e.target.value as SpanUnit })}
			>
				{Object.entries(units)
					.filter(([unit]) => unit !== "Minutes" && unit !== "Hours")
					.map(([unit, words]) => (
						<option key={unit} value={unit}>
							{words}
						</option>
					))}
			</Select>
			<Select
				label="Of the date that matters"
				value={before ? "before" : "after"}
				onChange={(e) =>
					onChange({ count: (e.target.value === "before" ? -1 : 1) * size })
				}
			>
				<option value="before">before</option>
				<option value="after">after</option>
			</Select>
			<span className="flex gap-3 pb-1.5 text-small">
				{onUp && (
					<button type="button" className="link" onClick={onUp}>
						up<span className="sr-only">: {item.title}</span>
					</button>
				)}
				<button type="button" className="link" onClick={onTakeOut}>
					take out<span className="sr-only">: {item.title}</span>
				</button>
			</span>
		</li>
	);
}
