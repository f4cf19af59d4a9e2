import type { FileGroup, RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import type { useKeepFiles } from "./useKeepFiles";

const groups: Record<FileGroup, string> = {
	Supplied: "supplied: photos, texts, logos",
	Drafts: "a draft to be looked at",
	Final: "final, to be handed over",
};

/** Says what was kept and where, and lets it be put elsewhere or taken back. */
export function KeptNow({
	record,
	files,
}: {
	record: RecordDto;
	files: ReturnType<typeof useKeepFiles>;
}) {
	if (files.kept.length === 0 && files.left === 0 && !files.refusal)
		return null;
	return (
		<section aria-label="Kept just now" className="panel mb-3 grid gap-2 p-4">
			<div className="flex items-baseline gap-3">
				<h2 role="status">
					{files.left > 0
						? `Keeping ${files.left} file${files.left === 1 ? "" : "s"}`
						: files.kept.length === 1
							? `Kept: ${files.kept[0]!.name}`
							: `Kept: ${files.kept.length} files`}
				</h2>
				<Button
					kind="word"
					size="small"
					className="ml-auto"
					onClick={files.close}
				>
					Close
				</Button>
			</div>
			{files.kept.map((file) => (
				<div key={file.id} className="flex flex-wrap items-end gap-2">
					<Select
						label={`${file.name} is`}
						value={file.group}
						onChange={(e) =>
							files.place(file, {
								group: e.target.value as FileGroup,
								phase: e.target.value === "Drafts" ? file.phase : null,
							})
						}
					>
						{Object.entries(groups).map(([group, words]) => (
							<option key={group} value={group}>
								{words}
							</option>
						))}
					</Select>
					{file.group === "Drafts" && record.sheet.work.phases.length > 0 && (
						<Select
							label="Phase"
							about={file.name}
							value={file.phase ?? ""}
							onChange={(e) =>
								files.place(file, {
									group: file.group,
									phase: e.target.value || null,
								})
							}
						>
							<option value="">none</option>
							{record.sheet.work.phases.map((one) => (
								<option key={one.name}>{one.name}</option>
							))}
						</Select>
					)}
					<Button
						kind="word"
						size="small"
						className="pb-2"
						onClick={() => files.takeBack(file)}
					>
						take it back<span className="sr-only">: {file.name}</span>
					</Button>
				</div>
			))}
			<Refused of={files.refusal} />
		</section>
	);
}
