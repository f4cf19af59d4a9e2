import { useState } from "react";
import { upload } from "../../api/client";
import type { Refusal } from "../../api/refusal";
import type { LetterFileDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { FilePick } from "../../ui/FilePick";
import { Menu } from "../../ui/Menu";

const size = (bytes: number) =>
	bytes < 1024 * 1024
		? `${Math.max(1, Math.round(bytes / 1024))} kB`
		: `${(bytes / (1024 * 1024)).toFixed(1)} MB`;

/** Files that go with a letter: new ones, or the project's own. */
export function LetterFiles({
	files,
	kept,
	wrong,
	onChange,
}: {
	files: readonly LetterFileDto[];
	kept: readonly LetterFileDto[];
	wrong?: string;
	onChange: (files: LetterFileDto[]) => void;
}) {
	const [problem, setProblem] = useState<string>();
	const [busy, setBusy] = useState(false);
	const left = kept.filter((one) => files.every((f) => f.hash !== one.hash));
	async function take(chosen: File[]) {
		setBusy(true);
		setProblem(undefined);
		let all = [...files];
		for (const file of chosen)
			try {
				const one = await upload<LetterFileDto>(
					`/api/letter-files?name=${encodeURIComponent(file.name)}`,
					file,
				);
				all = [...all, one];
				onChange(all);
			} catch (error) {
				const refusal = error as Refusal;
				setProblem(refusal.of("file") ?? refusal.message);
			}
		setBusy(false);
	}
	return (
		<div>
			<ul aria-label="Files that go with it">
				{files.map((file) => (
					<li
						key={file.hash}
						className="flex gap-3 border-b border-hair py-1 text-[14px]"
					>
						{file.name} <span className="under">{size(file.size)}</span>
						<Button
							kind="word"
							size="small"
							className="ml-auto"
							onClick={() =>
								onChange(files.filter((one) => one.hash !== file.hash))
							}
						>
							take out<span className="sr-only"> {file.name}</span>
						</Button>
					</li>
				))}
			</ul>
			<div className="flex flex-wrap items-end gap-2 pt-1.5">
				<FilePick multiple name="Attach a file" onFiles={take}>
					{busy ? "Sending" : "Attach a file"}
				</FilePick>
				{left.length > 0 && (
					<Menu
						words="One of the project’s files"
						items={left.map((one) => ({
							key: one.hash,
							words: one.name,
							act: () => onChange([...files, one]),
						}))}
					/>
				)}
			</div>
			{(problem ?? wrong) && <p className="wrong">{problem ?? wrong}</p>}
		</div>
	);
}
