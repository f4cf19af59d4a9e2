import type { FileGroup, RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { FilePick } from "../../ui/FilePick";
import { Block } from "./Block";
import { Kept } from "./KeptFile";

const groups: { group: FileGroup; words: string }[] = [
	{ group: "Supplied", words: "Supplied" },
	{ group: "Drafts", words: "Drafts" },
	{ group: "Final", words: "Final" },
];

/** Files in their three groups; each says whether the client sees it. */
export function Files({
	record,
	onKeep,
	onPutUp,
	onHandOver,
}: {
	record: RecordDto;
	onKeep: (files: File[]) => void;
	onPutUp: () => void;
	onHandOver: () => void;
}) {
	const hasDrafts = record.sheet.work.files.some(
		(file) => file.group === "Drafts",
	);
	return (
		<Block
			title="Files"
			aside={
				<FilePick kind="word" multiple name="Files to keep" onFiles={onKeep}>
					Keep a file
				</FilePick>
			}
		>
			{record.sheet.work.files.length === 0 && (
				<p className="text-[14.3px] text-soft">
					None yet. Drop one anywhere on this page to keep it.
				</p>
			)}
			{groups.map(({ group, words }) => {
				const files = record.sheet.work.files.filter(
					(file) => file.group === group,
				);
				return files.length === 0 ? null : (
					<div key={group} className="pt-1.5">
						<h3 className="text-[12.5px] font-semibold text-soft">{words}</h3>
						<ul>
							{files.map((file) => (
								<Kept
									key={file.id}
									project={record.id}
									file={file}
									seen={record.sheet.page.parts.some(
										(part) =>
											part.since &&
											part.part === (group === "Drafts" ? "Drafts" : "Files"),
									)}
								/>
							))}
						</ul>
					</div>
				);
			})}
			{record.sheet.work.rounds.openWords && (
				<p className="pt-2 text-[14.3px] font-[650]">
					{record.sheet.work.rounds.openWords}
				</p>
			)}
			{(hasDrafts || record.sheet.work.canHandOver) && (
				<div className="flex flex-wrap gap-2 pt-2.5">
					{hasDrafts && !record.sheet.work.rounds.open && (
						<Button onClick={onPutUp}>Put up for review</Button>
					)}
					{record.sheet.work.canHandOver && (
						<Button onClick={onHandOver}>Hand over</Button>
					)}
				</div>
			)}
		</Block>
	);
}
