import type { RecordDto } from "../../api/schema";
import { AmountRow } from "../../ui/AmountRow";
import { Button } from "../../ui/Button";
import { AskForms } from "./AskForms";
import { Block } from "./Block";
import { Brief, Guides } from "./Brief";
import { ClientParts } from "./ClientParts";
import { Details } from "./Details";
import { Files } from "./Files";
import { FollowUps } from "./FollowUps";
import { LetterBox } from "./LetterBox";
import { Meetings } from "./Meetings";
import { People } from "./People";
import { Phases } from "./Phases";
import { Tasks } from "./Tasks";

/** The standing details beside the line. */
export function Sheet({
	record,
	onKeep,
	onWrite,
	onOpen,
}: {
	record: RecordDto;
	onKeep: (files: File[]) => void;
	onWrite: (what: string) => void;
	onOpen: (what: string) => void;
}) {
	return (
		<div className="panel px-4 py-0.5">
			<Guides brief={record.about.brief} />
			{record.sheet.money && <Money money={record.sheet.money} />}
			<Meetings
				record={record}
				onOffer={() => onWrite("meeting")}
				onOpen={(meeting) => onOpen(`Meeting.${meeting}`)}
			/>
			<Tasks record={record} />
			{record.sheet.work.phases.length > 0 && record.path.booked && (
				<Phases record={record} />
			)}
			<Files
				record={record}
				onKeep={onKeep}
				onPutUp={() => onWrite("review")}
				onHandOver={() => onWrite("handover")}
			/>
			<ClientParts record={record} />
			<FollowUps record={record} />
			<AskForms record={record} onAsk={() => onWrite("form")} />
			<People record={record} />
			<Details record={record} />
			<Brief record={record} onPut={() => onWrite("brief")} />
			{record.sheet.papers.length > 0 && (
				<Block title="At hand">
					{record.sheet.papers.map((paper) => (
						<p key={paper.address} className="py-[2.5px] text-[14.3px]">
							<Button asChild kind="word">
								<a href={paper.address}>{paper.name}</a>
							</Button>{" "}
							<span className="text-soft">PDF</span>
						</p>
					))}
				</Block>
			)}
			<LetterBox record={record} />
			{record.about.answers.length > 0 && (
				<Block title="The inquiry">
					<dl className="text-[14.3px]">
						{record.about.answers.map((answer) => (
							<div key={answer.question} className="pt-1.5">
								<dt className="under">{answer.question}</dt>
								<dd className="whitespace-pre-line">{answer.text}</dd>
							</div>
						))}
					</dl>
				</Block>
			)}
		</div>
	);
}

function Money({ money }: { money: NonNullable<RecordDto["sheet"]["money"]> }) {
	return (
		<Block title="Money">
			<div
				className="my-2 flex h-3.5 border-[1.5px] border-ink"
				role="img"
				aria-label={`${money.paidShare} per cent of the agreed price is paid`}
			>
				<span className="bg-ink" style={{ width: `${money.paidShare}%` }} />
				<span className="flex-1 bg-[repeating-linear-gradient(135deg,var(--hatch)_0_1.5px,transparent_1.5px_5px)]" />
			</div>
			<dl className="text-[14.3px]">
				{money.lines.map((line, i) => (
					<AmountRow
						key={`${line.label}${i}`}
						label={line.label}
						amount={line.amount}
					/>
				))}
			</dl>
		</Block>
	);
}
