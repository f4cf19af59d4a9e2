import type { ReactNode } from "react";
import type { RecordDto } from "../../api/schema";
import { AskForms } from "./AskForms";
import { AtHand } from "./AtHand";
import { Brief } from "./Brief";
import { ClientParts } from "./ClientParts";
import { Details } from "./Details";
import { FollowUps } from "./FollowUps";
import { Inquiry, longestOf } from "./Inquiry";
import { LetterBox } from "./LetterBox";
import { Meetings } from "./Meetings";
import { Money } from "./Money";
import { People } from "./People";
import {
	briefLine,
	followUpLine,
	meetingLine,
	pageLine,
	peopleLine,
	taskLine,
} from "./partLines";
import { RateSheet } from "./RateSheet";
import type { SheetActs } from "./Sheet";
import {
	access,
	checklists,
	files,
	lists,
	phases,
	praise,
	runSheet,
	spent,
} from "./sheetWork";
import { Tasks } from "./Tasks";

/** A part of the sheet: what matters of it in one line, and whether the present gate needs it. */
export type Part = {
	title: string;
	line: ReactNode;
	/** There is nothing of it yet. */
	empty: boolean;
	open: boolean;
	show: () => ReactNode;
};

/** The parts of a project's sheet, in the order of the work. */
export function partsOf(record: RecordDto, acts: SheetActs): Part[] {
	const { stage, ended } = record.path;
	const at = (...stages: (typeof stage)[]) => stages.includes(stage) && !ended;
	return [
		...inquiry(record, at("Lead")),
		...details(record, at("Lead")),
		...money(record, at("Proposal", "Contract", "Payment", "Delivery")),
		{
			title: "Meetings",
			line: meetingLine(record),
			empty:
				!record.sheet.meetings.offered &&
				!record.sheet.meetings.all.some((one) => one.isStanding),
			open:
				record.sheet.meetings.offered !== null ||
				record.sheet.meetings.all.some((one) => one.isStanding),
			show: () => (
				<Meetings
					record={record}
					onOffer={() => acts.onWrite("meeting")}
					onOpen={(meeting) => acts.onOpen(`Meeting.${meeting}`)}
				/>
			),
		},
		{
			title: "Open tasks",
			line: taskLine(record),
			empty:
				record.sheet.tasks.open.length === 0 &&
				record.sheet.tasks.done.length === 0,
			open: at("Delivery") || record.sheet.tasks.open.length > 0,
			show: () => <Tasks record={record} />,
		},
		checklists(record),
		spent(record),
		files(record, acts, at("Delivery")),
		...papers(record, acts, at("Contract", "Payment")),
		...phases(record, acts),
		runSheet(record),
		lists(record),
		access(record),
		{
			title: "Client page",
			line: pageLine(record),
			empty: false,
			open: false,
			show: () => <ClientParts record={record} />,
		},
		{
			title: "Follow-ups",
			line: followUpLine(record),
			empty: false,
			open: false,
			show: () => <FollowUps record={record} />,
		},
		{
			title: "Forms and rates",
			line: "",
			empty: true,
			open: false,
			show: () => (
				<>
					<AskForms record={record} onAsk={() => acts.onWrite("form")} />
					<RateSheet record={record} onSend={() => acts.onWrite("rates")} />
				</>
			),
		},
		{
			title: "People",
			line: peopleLine(record),
			empty: false,
			open: false,
			show: () => <People record={record} />,
		},
		{
			title: "Brief",
			line: briefLine(record),
			empty: briefLine(record) === "",
			open: false,
			show: () => <Brief record={record} onPut={() => acts.onWrite("brief")} />,
		},
		praise(record, acts),
		{
			title: "Copies and letters as files",
			line: "history, everything in one file, letters taken over",
			empty: true,
			open: false,
			show: () => <LetterBox record={record} />,
		},
	];
}

function inquiry(record: RecordDto, open: boolean): Part[] {
	const { answers } = record.about;
	if (answers.length === 0) return [];
	return [
		{
			title: "The inquiry",
			line: longestOf(answers).text,
			empty: false,
			open,
			show: () => <Inquiry answers={answers} />,
		},
	];
}

function details(record: RecordDto, open: boolean): Part[] {
	const { details } = record.about;
	if (details.length === 0) return [];
	const known = details.filter((one) => one.value);
	const needed = details.some((one) => one.demanded && !one.value);
	return [
		{
			title: "Details",
			line: known
				.map((one) => `${one.value}${one.unit ? ` ${one.unit}` : ""}`)
				.join(", "),
			empty: known.length === 0 && !needed,
			open: open || details.some((one) => one.said != null),
			show: () => <Details record={record} />,
		},
	];
}

function money(record: RecordDto, open: boolean): Part[] {
	const { money } = record.sheet;
	return [
		{
			title: "Money",
			line: (money?.lines ?? [])
				.slice(0, 2)
				.map((line) => `${line.label} ${line.amount}`)
				.join(", "),
			empty: !money,
			open: open && Boolean(money),
			show: () => <Money record={record} />,
		},
	];
}

function papers(record: RecordDto, acts: SheetActs, open: boolean): Part[] {
	const { papers } = record.sheet;
	if (papers.length === 0) return [];
	return [
		{
			title: "At hand",
			line: papers.map((paper) => paper.name).join(", "),
			empty: false,
			open,
			show: () => <AtHand record={record} onWrite={acts.onWrite} />,
		},
	];
}
