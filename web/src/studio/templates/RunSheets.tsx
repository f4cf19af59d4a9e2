import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../../api/client";
import type { RunItemDto, RunSheetTemplateDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Shown } from "../../ui/Shown";
import { TextField } from "../../ui/TextField";
import { useUndo } from "../../ui/Undo";
import { RunItems } from "../runsheet/RunItems";
import { saying, wrongIn } from "../runsheet/written";
import { useAct } from "../useAct";

/** Run sheets that are laid on the date of a project. */
export function RunSheets() {
	const [open, setOpen] = useState<string>();
	const sheets = useQuery({
		queryKey: ["run-sheets"],
		queryFn: () => answer(api.GET("/api/run-sheets")),
	});
	const close = () => setOpen(undefined);
	return (
		<div className="grid content-start gap-4">
			<div className="flex items-baseline gap-3">
				<h2 className="text-[19px]">Run sheets</h2>
				<span className="text-soft">by the hour, laid on a date</span>
				<Button className="ml-auto" onClick={() => setOpen("new")}>
					Begin a run sheet
				</Button>
			</div>
			{open === "new" && (
				<div className="panel px-4">
					<Editor onDone={close} />
				</div>
			)}
			<Shown query={sheets}>
				{(data) => (
					<ul className="border-t-[1.5px] border-ink">
						{data.map((sheet) => (
							<li key={sheet.key} className="border-b border-hair py-1.5">
								<Button
									kind="line"
									className="font-[600]"
									data-walk
									aria-expanded={open === sheet.key}
									onClick={() =>
										setOpen(open === sheet.key ? undefined : sheet.key)
									}
								>
									{sheet.name}
								</Button>{" "}
								<span className="under">
									{sheet.items.length} item
									{sheet.items.length === 1 ? "" : "s"}
								</span>
								{open === sheet.key && (
									<Editor key={sheet.edition} sheet={sheet} onDone={close} />
								)}
							</li>
						))}
						{data.length === 0 && (
							<li className="py-3 text-soft">
								A day that always runs the same way would stand here.
							</li>
						)}
					</ul>
				)}
			</Shown>
		</div>
	);
}

function Editor({
	sheet,
	onDone,
}: {
	sheet?: RunSheetTemplateDto;
	onDone: () => void;
}) {
	const [name, setName] = useState(sheet?.name ?? "");
	const [items, setItems] = useState<RunItemDto[]>([...(sheet?.items ?? [])]);
	const act = useAct();
	const offer = useUndo();
	async function keep() {
		const body = { name, items: saying(items), edition: sheet?.edition ?? 0 };
		const kept = await act.run(() =>
			sheet
				? answer(
						api.PUT("/api/run-sheets/{key}", {
							params: { path: { key: sheet.key } },
							body,
						}),
					)
				: answer(api.POST("/api/run-sheets", { body })),
		);
		if (kept) onDone();
	}
	const remove = (removed: boolean) =>
		act.run(() =>
			answer(
				api.POST("/api/run-sheets/{key}/removed", {
					params: { path: { key: sheet?.key ?? "" } },
					body: { removed },
				}),
			),
		);
	return (
		<div className="grid gap-3 py-3">
			<TextField
				label="Name of the run sheet"
				value={name}
				wrong={act.refusal?.of("name")}
				onChange={(e) => setName(e.target.value)}
			/>
			<RunItems
				items={items}
				days={[]}
				earlier={0}
				wrong={wrongIn(act.refusal, items)}
				onChange={setItems}
			/>
			<Refused of={act.refusal} />
			<div className="flex flex-wrap gap-2">
				<Button kind="go" disabled={act.busy} onClick={keep}>
					Keep the run sheet
				</Button>
				<Button onClick={onDone}>Close</Button>
				{sheet && (
					<Button
						className="ml-auto"
						disabled={act.busy}
						onClick={async () => {
							if (!(await remove(true))) return;
							offer({
								words: `“${sheet.name}” taken away`,
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
