import type { RecordDto } from "../../api/schema";

// What matters of a folded part, in one line.

export function meetingLine(record: RecordDto): string {
	const next = record.sheet.meetings.all.find((one) => one.isStanding);
	return next ? `${next.name}, ${next.when}` : "";
}

export function taskLine(record: RecordDto): string {
	const { open, done } = record.sheet.tasks;
	if (open[0]) return `${open.length} open, next ${open[0].kept.title}`;
	return done[0] ? `none, ${done.length} done` : "";
}

export function pageLine(record: RecordDto): string {
	const { parts, linkEnded } = record.sheet.page;
	return linkEnded
		? "closed"
		: `${parts.filter((one) => one.since).length} of ${parts.length} parts open`;
}

export function followUpLine(record: RecordDto): string {
	const steps = record.line.ahead.filter((one) => one.acts.step);
	const held = record.line.ahead.filter((one) => one.acts.held).length;
	return [
		held > 0 && `${held} ${held === 1 ? "waits" : "wait"} for your OK`,
		`${steps.length - held > 0 ? steps.length - held : "none"} ahead`,
	]
		.filter(Boolean)
		.join(", ");
}

export function peopleLine(record: RecordDto): string {
	const others = record.involved.people.map((one) => one.name);
	return [record.head.client.name, ...others].join(", ");
}

export function briefLine(record: RecordDto): string {
	return (
		record.about.brief.parts.find((part) => part.text.trim())?.text.trim() ?? ""
	);
}
