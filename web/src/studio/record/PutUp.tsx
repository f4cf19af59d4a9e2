import { useState } from "react";
import { answer, api } from "../../api/client";
import type { RecordDto } from "../../api/schema";
import { Select } from "../../ui/Select";
import { Tick } from "../../ui/Tick";
import { Amend } from "./Amend";
import { Carried } from "./Carried";
import { ChecklistLine, useChecklists } from "./Checklists";

/** Puts drafts up for review: which, for which phase, and the letter that says so. */
export function PutUp({
	record,
	onClose,
}: {
	record: RecordDto;
	onClose: () => void;
}) {
	const drafts = record.sheet.work.files.filter(
		(file) => file.group === "Drafts",
	);
	const newest = drafts.at(-1);
	const [chosen, setChosen] = useState<number[]>(newest ? [newest.id] : []);
	const [phase, setPhase] = useState(newest?.phase ?? "");
	const [beyond, setBeyond] = useState(false);
	const lists = useChecklists(record.id).data ?? [];
	const { next, agreed } = record.sheet.work.rounds;
	const opens = record.sheet.page.parts.some(
		(one) => one.part === "Drafts" && !one.since,
	);
	return (
		<Carried
			project={record.id}
			title={`Put up for review, round ${next}${next > agreed ? "" : ` of ${agreed}`}`}
			template="draft-ready"
			button={`Put up round ${next}`}
			disabled={chosen.length === 0}
			onClose={onClose}
			send={(letter) =>
				answer(
					api.POST("/api/projects/{id}/reviews", {
						params: { path: { id: record.id } },
						body: {
							files: chosen,
							phase: phase || null,
							beyond,
							...letter,
						},
					}),
				)
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
					{lists
						.filter((list) => list.stands.lacks)
						.map((list) => (
							<div key={list.id} className="border-l-4 border-ink pl-3">
								<p className="font-[650]">{list.stands.lacks}</p>
								<ChecklistLine project={record.id} list={list} />
							</div>
						))}
					{refusal?.of("checklist") && (
						<div className="wrong">{refusal.of("checklist")}</div>
					)}
					<fieldset>
						<legend className="label">Drafts</legend>
						{drafts.map((file) => (
							<Tick
								key={file.id}
								label={file.name}
								under={file.about}
								className="py-0.5"
								checked={chosen.includes(file.id)}
								onChange={(checked) =>
									setChosen(
										checked
											? [...chosen, file.id]
											: chosen.filter((one) => one !== file.id),
									)
								}
							/>
						))}
						{refusal?.of("files") && (
							<div className="wrong">{refusal.of("files")}</div>
						)}
					</fieldset>
					{record.sheet.work.phases.length > 0 && (
						<Select
							label="A yes closes the phase"
							value={phase}
							wrong={refusal?.of("phase")}
							onChange={(e) => setPhase(e.target.value)}
						>
							<option value="">none</option>
							{record.sheet.work.phases.map((one) => (
								<option key={one.name}>{one.name}</option>
							))}
						</Select>
					)}
					{next > agreed && record.sheet.canAmend && (
						<div>
							<p className="under">
								A further round can be a priced extra: an amendment, which they
								sign before you put it up.
							</p>
							<Amend project={record.id} />
						</div>
					)}
					{next > agreed && (
						<Tick
							label="A further round is meant; what it costs stands in the letter."
							checked={beyond}
							onChange={(checked) => setBeyond(checked)}
						/>
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
