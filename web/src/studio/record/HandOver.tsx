import { useState } from "react";
import { answer, api } from "../../api/client";
import type { RecordDto } from "../../api/schema";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { Carried } from "./Carried";

/** Hands over: the final files, each with a word on its use, and the letter that says so. */
export function HandOver({
	record,
	onClose,
}: {
	record: RecordDto;
	onClose: () => void;
}) {
	const finals = record.sheet.work.files.filter(
		(file) => file.group === "Final",
	);
	const [uses, setUses] = useState<Record<number, string>>(() =>
		Object.fromEntries(finals.map((file) => [file.id, file.use])),
	);
	const [open, setOpen] = useState<number[]>([]);
	const mine = record.sheet.tasks.open.filter((task) => !task.kept.isClients);
	return (
		<Carried
			project={record.id}
			title="Hand over the work"
			template="handover"
			button="Hand over"
			onClose={onClose}
			send={(letter) =>
				answer(
					api.POST("/api/projects/{id}/handover", {
						params: { path: { id: record.id } },
						body: {
							files: finals.map((file) => ({
								file: file.id,
								use: uses[file.id] ?? "",
							})),
							done: mine
								.filter((task) => !open.includes(task.id))
								.map((task) => task.id),
							...letter,
						},
					}),
				)
			}
		>
			{(refusal) => (
				<>
					{finals.length === 0 && (
						<p className="under">
							There is no final file. Work that is not a file is handed over all
							the same; keep files as final first, if there are any.
						</p>
					)}
					{finals.map((file) => (
						<TextField
							key={file.id}
							label={`What ${file.name} is for`}
							placeholder="for print, 300 dpi; keep it"
							value={uses[file.id] ?? ""}
							wrong={refusal?.of(`use:${file.id}`)}
							onChange={(e) => setUses({ ...uses, [file.id]: e.target.value })}
						/>
					))}
					{mine.length > 0 && (
						<fieldset className="grid gap-0.5">
							<legend className="label">Done with it</legend>
							{mine.map((task) => (
								<Tick
									key={task.id}
									label={task.kept.title}
									checked={!open.includes(task.id)}
									onChange={(done) =>
										setOpen(
											done
												? open.filter((one) => one !== task.id)
												: [...open, task.id],
										)
									}
								/>
							))}
						</fieldset>
					)}
					<p className="under">
						The part “Files” of the client page opens with it, and the closing
						steps become tasks.
					</p>
				</>
			)}
		</Carried>
	);
}
