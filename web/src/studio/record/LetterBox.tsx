import { useState } from "react";
import { upload } from "../../api/client";
import type { RecordDto, TakenOverDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { FilePick } from "../../ui/FilePick";
import { Refused } from "../../ui/Refused";
import { useAct } from "../useAct";
import { Block } from "./Block";

const tables = [
	["tasks", "tasks"],
	["hours", "hours"],
	["costs", "costs"],
	["run-sheet", "run sheet"],
] as const;

/** The project's letters as open files: out to keep, in from elsewhere. */
export function LetterBox({ record }: { record: RecordDto }) {
	const [said, setSaid] = useState<TakenOverDto>();
	const act = useAct();
	async function take(files: File[]) {
		let sum: TakenOverDto = { kept: 0, known: 0, unread: 0 };
		for (const file of files)
			await act.run(async () => {
				const one = await upload<TakenOverDto>(
					`/api/projects/${record.id}/letters/take-over`,
					file,
				);
				sum = {
					kept: sum.kept + one.kept,
					known: sum.known + one.known,
					unread: sum.unread + one.unread,
				};
			});
		setSaid(sum);
	}
	return (
		<Block title="Copies and letters as files">
			<p className="flex flex-wrap gap-x-4 pb-1 text-[14.3px]">
				<Button asChild kind="word">
					<a href={`/api/projects/${record.id}/history.pdf`} download>
						its history (PDF)
					</a>
				</Button>
				<Button asChild kind="word">
					<a href={`/api/projects/${record.id}/everything.zip`} download>
						everything of it (ZIP)
					</a>
				</Button>
			</p>
			<p className="flex flex-wrap gap-x-4 pb-1 text-[14.3px]">
				<span className="text-soft">Tables (CSV)</span>
				{tables.map(([file, words]) => (
					<Button key={file} asChild kind="word">
						<a href={`/api/projects/${record.id}/${file}.csv`} download>
							{words}
						</a>
					</Button>
				))}
			</p>
			<p
				className="flex flex-wrap gap-x-4 text-[14.3px]"
				title="Letters written elsewhere (.eml, .mbox) stand on the line at their own dates and move nothing"
			>
				<Button asChild kind="word">
					<a href={`/api/projects/${record.id}/letters.mbox`}>
						all letters (mbox)
					</a>
				</Button>
				<FilePick
					kind="word"
					multiple
					accept=".eml,.mbox,message/rfc822,application/mbox"
					name="Take over letters"
					onFiles={take}
				>
					take over letters
				</FilePick>
			</p>
			{said && (
				<p role="status" className="pt-1">
					{said.kept} taken over
					{said.known > 0 && `, ${said.known} known already`}
					{said.unread > 0 && `, ${said.unread} could not be read`}.
				</p>
			)}
			<Refused of={act.refusal} />
		</Block>
	);
}
