import { upload } from "../../api/client";
import type { KeptDto, RecordDto } from "../../api/schema";
import { FilePick } from "../../ui/FilePick";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { useAct } from "../useAct";
import type { Said } from "./said";

/** The scan or photo of a contract signed on paper: one of the files, or one taken in here. */
export function SignedPaper({
	record,
	said,
	wrong,
	onChange,
}: {
	record: RecordDto;
	said: Said;
	wrong: (field: string) => string | undefined;
	onChange: (part: Partial<Said>) => void;
}) {
	const act = useAct();
	async function keep(file: File | undefined) {
		if (!file) return;
		const query = new URLSearchParams({ name: file.name, group: "Supplied" });
		await act.run(async () => {
			const kept = await upload<KeptDto>(
				`/api/projects/${record.id}/files?${query}`,
				file,
			);
			onChange({ file: String(kept.id) });
		});
	}
	return (
		<div className="grid gap-2">
			<Select
				label="The signed paper"
				hint="a scan or a photo"
				value={said.file}
				wrong={wrong("file")}
				onChange={(e) => onChange({ file: e.target.value })}
			>
				{record.sheet.work.files.length === 0 && (
					<option value="">No file is kept yet</option>
				)}
				{record.sheet.work.files.map((file) => (
					<option key={file.id} value={file.id}>
						{file.name}
					</option>
				))}
			</Select>
			<div>
				<FilePick
					accept="application/pdf,image/*"
					name="Take in a scan or photo of the signed paper"
					disabled={act.busy}
					onFiles={([file]) => keep(file)}
				>
					{act.busy ? "Taking it in" : "Take in a scan or photo"}
				</FilePick>
			</div>
			<Refused of={act.refusal} />
		</div>
	);
}
