import { useState } from "react";
import { Link } from "react-router";
import { answer, api } from "../../api/client";
import type { RecordDto, SheetPaperDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { TextArea } from "../../ui/TextArea";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";
import { Amend } from "./Amend";
import { Block } from "./Block";

/** The papers of the project, as they were sent and signed, and what can be done about a contract. */
export function AtHand({
	record,
	onWrite,
}: {
	record: RecordDto;
	onWrite: (what: string) => void;
}) {
	const { papers, canAmend } = record.sheet;
	return (
		<Block title="At hand">
			{papers.map((paper) => (
				<Paper
					key={paper.name + (paper.file ?? paper.version)}
					paper={paper}
					project={record.id}
					onReplace={() => onWrite("contract")}
				/>
			))}
			{canAmend && <Amend project={record.id} />}
		</Block>
	);
}

function Paper({
	paper,
	project,
	onReplace,
}: {
	paper: SheetPaperDto;
	project: number;
	onReplace: () => void;
}) {
	const [voiding, setVoiding] = useState(false);
	return (
		<div className="py-[5px]">
			<Button asChild kind="word">
				{paper.version === null ? (
					<a href={paper.file!}>{paper.name}</a>
				) : (
					<Link to={`/projects/${project}/proposal/${paper.version}`}>
						{paper.name}
					</Link>
				)}
			</Button>
			{paper.about && <span className="under block">{paper.about}</span>}
			{paper.contract && (
				<span className="flex flex-wrap gap-x-3">
					{paper.contract.canReplace && (
						<Button kind="word" size="small" onClick={onReplace}>
							put another in its place
						</Button>
					)}
					<Button kind="word" size="small" onClick={() => setVoiding(true)}>
						void it<span className="sr-only">: {paper.name}</span>
					</Button>
					<Void
						open={voiding}
						paper={paper}
						project={project}
						onClose={() => setVoiding(false)}
					/>
				</span>
			)}
		</div>
	);
}

function Void({
	open,
	paper,
	project,
	onClose,
}: {
	open: boolean;
	paper: SheetPaperDto;
	project: number;
	onClose: () => void;
}) {
	const [words, setWords] = useState("");
	const act = useAct();
	async function go() {
		if (
			await act.run(() =>
				answer(
					api.POST("/api/projects/{id}/contract/{version}/void", {
						params: {
							path: { id: project, version: paper.contract!.version },
						},
						body: { words },
					}),
				),
			)
		)
			onClose();
	}
	return (
		<Window title={`Void “${paper.name}”`} open={open} onClose={onClose}>
			<div className="grid gap-3">
				<p>
					It binds nobody from now on, and cannot be signed any more. Its file
					stays to be read. This cannot be taken back; another one can be sent.
				</p>
				<TextArea
					label="Why"
					hint="for the line of this project; may stay empty"
					rows={2}
					value={words}
					wrong={act.refusal?.of("words")}
					onChange={(e) => setWords(e.target.value)}
				/>
				<Refused of={act.refusal} />
				<div>
					<Button kind="go" disabled={act.busy} onClick={go}>
						Void it
					</Button>
				</div>
			</div>
		</Window>
	);
}
