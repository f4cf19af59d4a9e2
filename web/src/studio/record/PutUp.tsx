import { useState } from "react";
import type { RecordDto, SentDto } from "../../api/schema";
import { Select } from "../../ui/Fields";
import { post } from "../../ui/http";
import { Carried } from "./Carried";

/** Puts drafts up for review: which, for which phase, and the letter that says so. */
export function PutUp({
	record,
	onClose,
}: {
	record: RecordDto;
	onClose: () => void;
}) {
	const drafts = record.files.filter((file) => file.group === "Drafts");
	const newest = drafts.at(-1);
	const [chosen, setChosen] = useState<number[]>(newest ? [newest.id] : []);
	const [phase, setPhase] = useState(newest?.phase ?? "");
	const [beyond, setBeyond] = useState(false);
	const { next, agreed } = record.rounds;
	const opens = record.parts.some((one) => one.part === "Drafts" && !one.since);
	return (
		<Carried
			project={record.id}
			title={`Put up for review, round ${next} of ${Math.max(next, agreed)}`}
			template="draft-ready"
			button={`Put up round ${next}`}
			disabled={chosen.length === 0}
			onClose={onClose}
			send={(letter) =>
				post<SentDto>(`/api/projects/${record.id}/reviews`, {
					files: chosen,
					phase: phase || null,
					beyond,
					...letter,
				})
			}
		>
			{(refusal) => (
				<>
					<p className={next >= agreed ? "font-[650]" : "under -mt-2"}>
						{next > agreed
							? `${agreed} rounds were agreed; this one goes beyond them.`
							: next === agreed
								? "This is the last round that was agreed."
								: `${agreed} rounds were agreed.`}
					</p>
					<fieldset>
						<legend className="label">Drafts</legend>
						{drafts.map((file) => (
							<label key={file.id} className="flex gap-2.5 py-0.5">
								<input
									type="checkbox"
									className="mt-1 size-4 accent-(--ink)"
									checked={chosen.includes(file.id)}
									onChange={(e) =>
										setChosen(
											e.target.checked
												? [...chosen, file.id]
												: chosen.filter((one) => one !== file.id),
										)
									}
								/>
								{file.name}
								<span className="under ml-auto">{file.about}</span>
							</label>
						))}
						{refusal?.of("files") && (
							<div className="wrong">{refusal.of("files")}</div>
						)}
					</fieldset>
					{record.phases.length > 0 && (
						<Select
							label="A yes closes the phase"
							value={phase}
							wrong={refusal?.of("phase")}
							onChange={(e) => setPhase(e.target.value)}
						>
							<option value="">none</option>
							{record.phases.map((one) => (
								<option key={one.name}>{one.name}</option>
							))}
						</Select>
					)}
					{next > agreed && (
						<label className="flex gap-2.5">
							<input
								type="checkbox"
								className="mt-1 size-4 accent-(--ink)"
								checked={beyond}
								onChange={(e) => setBeyond(e.target.checked)}
							/>
							A further round is meant; what it costs stands in the letter.
						</label>
					)}
					{opens && (
						<p className="under">
							The part “Drafts and rounds” of the client page opens with it.
						</p>
					)}
				</>
			)}
		</Carried>
	);
}
