import { useState } from "react";
import { upload } from "../../api/client";
import type { FileGroup, RecordDto } from "../../api/schema";
import { Alert } from "../../ui/Alert";
import { Button } from "../../ui/Button";
import { Select } from "../../ui/Select";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";

/** Asks where dropped or chosen files belong, and keeps them one after another. */
export function KeepFiles({
	record,
	files,
	onClose,
}: {
	record: RecordDto;
	files: File[];
	onClose: () => void;
}) {
	const [group, setGroup] = useState<FileGroup>("Supplied");
	const [phase, setPhase] = useState(
		record.sheet.work.phases.find((one) => one.state === "InWork")?.name ?? "",
	);
	const [kept, setKept] = useState(0);
	const act = useAct();
	async function keep() {
		for (const file of files.slice(kept)) {
			const query = new URLSearchParams({ name: file.name, group });
			if (group === "Drafts" && phase) query.set("phase", phase);
			const done = await act.run(() =>
				upload(`/api/projects/${record.id}/files?${query}`, file),
			);
			if (!done) return;
			setKept((before) => before + 1);
		}
		onClose();
	}
	return (
		<Window
			title={
				files.length === 1 ? "Keep this file" : `Keep ${files.length} files`
			}
			open={files.length > 0}
			onClose={onClose}
		>
			<div className="grid gap-3">
				<ul className="text-[14.3px]">
					{files.map((file) => (
						<li key={file.name} className="truncate">
							{file.name}
						</li>
					))}
				</ul>
				<Select
					label="They are"
					value={group}
					onChange={(e) => setGroup(e.target.value as FileGroup)}
				>
					<option value="Supplied">supplied: photos, texts, logos</option>
					<option value="Drafts">drafts to be looked at</option>
					<option value="Final">final, to be handed over</option>
				</Select>
				{group === "Drafts" && record.sheet.work.phases.length > 0 && (
					<Select
						label="Phase"
						value={phase}
						onChange={(e) => setPhase(e.target.value)}
					>
						<option value="">none</option>
						{record.sheet.work.phases.map((one) => (
							<option key={one.name}>{one.name}</option>
						))}
					</Select>
				)}
				{act.busy && files.length > 1 && (
					<progress
						className="w-full"
						aria-label="Files kept"
						value={kept}
						max={files.length}
					/>
				)}
				{act.refusal && <Alert>{act.refusal.message}</Alert>}
				<Button kind="go" disabled={act.busy} onClick={keep}>
					Keep {files.length === 1 ? "the file" : "the files"}
				</Button>
			</div>
		</Window>
	);
}
