import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../../api/client";
import { Button } from "../../ui/Button";
import { Shown } from "../../ui/Shown";
import { List } from "./TaskList";

/** Tasks that are made together, each at its distance to the date that matters. */
export function TaskLists() {
	const [open, setOpen] = useState<string>();
	const lists = useQuery({
		queryKey: ["task-lists"],
		queryFn: () => answer(api.GET("/api/task-lists")),
	});
	return (
		<div className="grid content-start gap-4">
			<div className="flex items-baseline gap-3">
				<h2 className="text-[19px]">Task lists</h2>
				<span className="text-soft">made by a routine, or by hand</span>
				<Button className="ml-auto" onClick={() => setOpen("new")}>
					Begin a list
				</Button>
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
								<Button
									kind="line"
									className="font-[600]"
									data-walk
									aria-expanded={open === list.key}
									onClick={() =>
										setOpen(open === list.key ? undefined : list.key)
									}
								>
									{list.name}
								</Button>{" "}
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
