import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../../api/client";
import type { OpensWhat, ReaderDto, RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Fold } from "../../ui/Fold";
import { Kbd } from "../../ui/Kbd";
import { Shown } from "../../ui/Shown";
import { useKeys } from "../Keys";
import { useAct } from "../useAct";
import { ChangeNote } from "./ChangeNote";
import { Held } from "./HeldLetter";
import { InvoiceActs } from "./InvoiceActs";
import { MeetingPane } from "./MeetingPane";
import { NextActs } from "./NextActs";
import type { Begins } from "./nextAct";
import { Letter } from "./ReadLetter";
import { Round } from "./ReadRound";

import { Taken } from "./TakenPayment";
import { useKeepPraise } from "./useKeepPraise";

/** An entry opened whole, on the sheet's side. */
export default function Reader({
	record,
	begins,
	name,
	onWrite,
	onClose,
}: {
	record: RecordDto;
	begins: Begins;
	name: string;
	onWrite: (what: string) => void;
	onClose: () => void;
}) {
	const project = record.id;
	const [what, id] = name.split(".");
	const params = {
		path: {
			id: project,
			what: what as OpensWhat,
			entry: Number(id),
		},
	};
	const entry = useQuery({
		queryKey: ["project", project, "entry", name],
		queryFn: () =>
			answer(
				api.GET("/api/projects/{id}/entries/{what}/{entry}", {
					params,
				}),
			),
	});
	return (
		<div className="panel p-4">
			<Shown query={entry}>
				{(data) => (
					<>
						<div className="flex items-start gap-3">
							<h2>{data.title}</h2>
							<Button
								kind="word"
								size="small"
								className="ml-auto"
								onClick={onClose}
							>
								Close
							</Button>
						</div>
						<p className="under pb-3 break-words">{data.under}</p>
						{data.meeting ? (
							<MeetingPane
								key={`${data.meeting.id}${data.meeting.when}${data.meeting.state}`}
								project={project}
								meeting={data.meeting}
								onSummary={() => onWrite("summary")}
							/>
						) : data.heldLetter ? (
							<Held key={data.heldLetter} data={data} onClose={onClose} />
						) : (
							<>
								{what === "Answers" && (
									<p className="pb-2">
										<Button asChild kind="word">
											<a
												href={`/api/projects/${project}/answers/${id}/paper.pdf`}
											>
												On paper, to carry (PDF)
											</a>
										</Button>
									</p>
								)}
								<Praising project={project} entry={name} text={data.text} />
								<Whole
									data={data}
									project={project}
									onWrite={onWrite}
									onClose={onClose}
								/>
								{data.note === null && (
									<div className="pt-3">
										<NextActs record={record} begins={begins} />
									</div>
								)}
							</>
						)}
					</>
				)}
			</Shown>
		</div>
	);
}

/** One key keeps what is marked of a letter or note as praise. */
function Praising({
	project,
	entry,
	text,
}: {
	project: number;
	entry: string;
	text: string;
}) {
	const act = useAct("below");
	const keep = useKeepPraise(project, act, entry, text);
	useKeys({ q: () => keep?.() });
	return (
		keep && (
			<p className="pb-2 text-small">
				<Button kind="word" disabled={act.busy} onClick={keep}>
					Keep as praise
				</Button>{" "}
				<Kbd>q</Kbd>
			</p>
		)
	);
}

function Whole({
	data,
	project,
	onWrite,
	onClose,
}: {
	data: ReaderDto;
	project: number;
	onWrite: (what: string) => void;
	onClose: () => void;
}) {
	return (
		<>
			{data.note ? (
				<ChangeNote
					project={project}
					note={data.note}
					text={data.text}
					onClose={onClose}
				/>
			) : (
				<div className="whitespace-pre-line">{data.text}</div>
			)}
			{data.quoted && (
				<Fold className="pt-3 text-soft" line="What they answered to">
					<div className="pt-2 whitespace-pre-line">{data.quoted}</div>
				</Fold>
			)}
			<dl>
				{data.answers.map((answer) => (
					<div key={answer.question} className="pb-2">
						<dt className="under">{answer.question}</dt>
						<dd className="whitespace-pre-line">{answer.text}</dd>
					</div>
				))}
				{data.sums.map((sum) => (
					<div
						key={sum.label}
						className="flex gap-3 border-t border-hair py-1.5 text-[14.3px]"
					>
						<dt>{sum.label}</dt>
						<dd className="num ml-auto whitespace-nowrap">{sum.amount}</dd>
					</div>
				))}
			</dl>
			{data.letter && (
				<Letter letter={data.letter} onWrite={onWrite} onClose={onClose} />
			)}
			{data.review && <Round review={data.review} onDone={onClose} />}
			{data.payment && (
				<Taken project={project} payment={data.payment} onDone={onClose} />
			)}
			{data.invoice && (
				<InvoiceActs
					project={project}
					invoice={data.invoice}
					onDone={onClose}
				/>
			)}
			{data.file && (
				<p className="pt-3">
					<Button asChild>
						<a href={data.file}>Open the PDF</a>
					</Button>
				</p>
			)}
		</>
	);
}
