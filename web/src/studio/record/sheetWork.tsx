import type { RecordDto } from "../../api/schema";
import { Access } from "./Access";
import { Checklists } from "./Checklists";
import { Files } from "./Files";
import { Lists } from "./Lists";
import { Phases, phaseWords } from "./Phases";
import { Praise } from "./Praise";
import { RunSheet } from "./RunSheet";
import type { SheetActs } from "./Sheet";
import { Spent } from "./Spent";
import type { Part } from "./sheetParts";

// The parts of a sheet that the work in hand is made of.

export function checklists(record: RecordDto): Part {
	const line = record.sheet.work.checklists;
	return {
		title: "Checklists",
		line,
		empty: !line,
		open: false,
		show: () => <Checklists record={record} />,
	};
}

export function spent(record: RecordDto): Part {
	return {
		title: "Hours and costs",
		line: record.sheet.spent,
		empty: !record.sheet.spent,
		open: false,
		show: () => <Spent record={record} />,
	};
}

export function runSheet(record: RecordDto): Part {
	return {
		title: "Run sheet",
		line: record.sheet.runSheet,
		empty: !record.sheet.runSheet,
		open: false,
		show: () => <RunSheet record={record} />,
	};
}

export function lists(record: RecordDto): Part {
	const { lists } = record.sheet;
	const unseen = lists.some((one) => one.unseen > 0);
	return {
		title: "Lists and boards",
		line: lists.map((one) => one.name).join(", "),
		empty: lists.length === 0,
		open: unseen,
		show: () => <Lists record={record} />,
	};
}

export function access(record: RecordDto): Part {
	const { line, outstanding } = record.sheet.access;
	return {
		title: "Links and access",
		line,
		empty: !line,
		open: outstanding,
		show: () => <Access record={record} />,
	};
}

export function praise(record: RecordDto, acts: SheetActs): Part {
	return {
		title: "Praise",
		line: record.sheet.praise,
		empty: !record.sheet.praise,
		open: false,
		show: () => <Praise record={record} acts={acts} />,
	};
}

export function files(record: RecordDto, acts: SheetActs, open: boolean): Part {
	const { files } = record.sheet.work;
	const of = (group: string) =>
		files.filter((file) => file.group === group).length;
	return {
		title: "Files",
		line: `${of("Supplied")} supplied, ${of("Drafts")} drafts, ${of("Final") || "none"} final`,
		empty: files.length === 0,
		open: open || record.sheet.work.canHandOver,
		show: () => (
			<Files
				record={record}
				onKeep={acts.onKeep}
				onPutUp={() => acts.onWrite("review")}
				onHandOver={() => acts.onWrite("handover")}
			/>
		),
	};
}

export function phases(record: RecordDto, acts: SheetActs): Part[] {
	const { phases } = record.sheet.work;
	if (phases.length === 0 || !record.path.booked) return [];
	const now = phases.find((one) => one.state === "InWork");
	const count = (state: (typeof phases)[number]["state"]) =>
		phases.filter((one) => one.state === state).length;
	return [
		{
			title: "Phases",
			line: [
				now && `${now.name} ${phaseWords.InWork}`,
				count("Done") > 0 && `${count("Done")} done`,
				count("Ahead") > 0 && `${count("Ahead")} ahead`,
			]
				.filter(Boolean)
				.join(", "),
			empty: false,
			open: false,
			show: () => (
				<Phases record={record} onTell={() => acts.onWrite("progress")} />
			),
		},
	];
}
