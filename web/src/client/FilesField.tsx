import { useState } from "react";
import { upload } from "../api/client";
import type { Refusal } from "../api/refusal";
import type { UploadedDto } from "../api/schema";
import { Button } from "../ui/Button";
import { FilePick } from "../ui/FilePick";
import { lines } from "./lines";

/** Files go at once, one by one; what is kept in the answer are their names of passage. */
export function FilesField({
	label,
	hint,
	wrong,
	value,
	address,
	onChange,
}: {
	label: string;
	hint?: string | null;
	wrong?: string;
	value: string;
	address?: string;
	onChange: (text: string) => void;
}) {
	const [sent, setSent] = useState<UploadedDto[]>([]);
	const [problem, setProblem] = useState<string>();
	const [busy, setBusy] = useState("");
	const ids = lines(value);
	async function take(files: File[]) {
		let kept = ids;
		setProblem(undefined);
		for (const file of files) {
			setBusy(file.name);
			try {
				const one = await upload<UploadedDto>(
					`${address}&name=${encodeURIComponent(file.name)}`,
					file,
				);
				setSent((before) => [...before, one]);
				kept = [...kept, one.id];
				onChange(kept.join("\n"));
			} catch (error) {
				const refusal = error as Refusal;
				setProblem(refusal.of("file") ?? refusal.message);
			}
		}
		setBusy("");
	}
	return (
		<div>
			<span className="label">{label}</span>
			<FilePick multiple name={label} disabled={!address} onFiles={take}>
				Choose files
			</FilePick>
			{hint && <span className="under pl-2">{hint}</span>}
			<div role="status">
				<ul>
					{busy && <li className="pt-1 text-soft">Sending {busy}</li>}
					{ids.map((id) => (
						<li key={id} className="flex gap-3 pt-1">
							{sent.find((one) => one.id === id)?.name ?? "a file, kept"}
							<Button
								kind="word"
								size="small"
								onClick={() =>
									onChange(ids.filter((one) => one !== id).join("\n"))
								}
							>
								take out
							</Button>
						</li>
					))}
				</ul>
			</div>
			{(problem ?? wrong) && <p className="wrong">{problem ?? wrong}</p>}
		</div>
	);
}
