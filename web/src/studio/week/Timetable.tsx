import { Link } from "react-router";
import type { WeekDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { DayCell } from "./Dragged";
import { LoadBar } from "./LoadBar";
import { WeekTask } from "./WeekTask";

type Row = WeekDto["rows"][number];

/** A row for each project with something in the week, a column for each day, meetings on top. */
export function Timetable({
	week,
	onOpen,
}: {
	week: WeekDto;
	onOpen: (appointment: number) => void;
}) {
	// a closed day that holds nothing takes little room
	const slim = week.days.map(
		(day) =>
			day.isClosed &&
			![
				...week.meetings,
				...week.rows.flatMap((row) => [...row.tasks, ...row.notes]),
			].some((one) => one.day === day.day),
	);
	const look = (at: number) =>
		week.days[at]?.isToday ? "bg-sheet" : slim[at] ? "closed-day" : "";
	return (
		<table
			className="timetable w-full table-fixed"
			data-monday={week.days[0]?.day}
		>
			<caption className="sr-only">
				{week.title}: {week.load}
			</caption>
			<colgroup>
				<col className="w-[148px]" />
				{week.days.map((day, at) => (
					<col key={day.day} className={slim[at] ? "w-11" : ""} />
				))}
			</colgroup>
			<thead>
				<tr>
					<td />
					{week.days.map((day, at) => (
						<th key={day.day} scope="col" className={look(at)}>
							<span
								aria-hidden
								className="block font-head text-[14.6px] leading-tight font-[650] whitespace-nowrap"
							>
								{slim[at] ? day.name.slice(0, 3) : day.name}
							</span>
							<span className="sr-only">
								{day.full}
								{day.isToday && ", today"}
								{day.isClosed && ", closed"}
							</span>
							<span
								className={`block text-[12.6px] ${day.load.over ? "font-[650]" : "text-soft"}`}
							>
								{day.load.words}
								{day.load.over && (
									<span className="sr-only">, {day.load.over}</span>
								)}
								{!day.load.words && !slim[at] && "closed"}
							</span>
							{day.load.unsaid && (
								<span className="under block">{day.load.unsaid}</span>
							)}
							<LoadBar load={day.load} />
						</th>
					))}
				</tr>
			</thead>
			<tbody>
				<tr>
					<th scope="row">
						<b>Meetings</b>
						<span className="under block">
							{week.meetings.length === 0
								? "none in the week"
								: `${week.meetings.length} in the week`}
						</span>
					</th>
					{week.days.map((day, at) => (
						<td key={day.day} className={look(at)}>
							{week.meetings
								.filter((one) => one.day === day.day)
								.map((one, i) => (
									<Meeting
										key={`${one.time}${one.words}${i}`}
										meeting={one}
										onOpen={onOpen}
									/>
								))}
						</td>
					))}
				</tr>
				{week.rows.map((row) => (
					<ProjectRow
						key={row.project}
						row={row}
						days={week.days}
						look={look}
					/>
				))}
				{week.rows.length === 0 && (
					<tr>
						<th scope="row">
							<b>Nothing yet</b>
						</th>
						<td colSpan={7} className="text-soft">
							Work that is put on a day of this week stands here, a row for each
							project. Take a task from the side and drag it onto its day, or
							walk to it and press 1 to 7.
						</td>
					</tr>
				)}
			</tbody>
		</table>
	);
}

function ProjectRow({
	row,
	days,
	look,
}: {
	row: Row;
	days: WeekDto["days"];
	look: (at: number) => string;
}) {
	return (
		<tr>
			<th scope="row">
				<Link to={`/projects/${row.project}`} className="block leading-tight">
					<b>{row.title}</b>
				</Link>
				<span className="under block">{row.under}</span>
			</th>
			{days.map((day, at) => (
				<DayCell
					key={day.day}
					day={day.day}
					row={row.project}
					className={look(at)}
				>
					{row.tasks
						.filter((task) => task.day === day.day)
						.map((task) => (
							<WeekTask key={task.id} task={task} column={at} />
						))}
					{row.notes
						.filter((note) => note.day === day.day)
						.map((note, i) => (
							<span
								key={`${note.words}${i}`}
								className={
									note.sort === "Date"
										? "block font-[650]"
										: "block text-[12.8px] text-(--date)"
								}
							>
								<span className={note.sort === "Date" ? "" : "dotted"}>
									{note.words}
								</span>
							</span>
						))}
				</DayCell>
			))}
		</tr>
	);
}

export function Meeting({
	meeting,
	onOpen,
}: {
	meeting: WeekDto["meetings"][number];
	onOpen: (appointment: number) => void;
}) {
	const words = (
		<>
			<b className="num text-[12.8px] font-semibold">{meeting.time}</b>{" "}
			{meeting.words}
			{meeting.of && <span className="sr-only">, {meeting.of}</span>}
		</>
	);
	if (meeting.appointment != null) {
		const id = meeting.appointment;
		return (
			<Button kind="line" className="block" onClick={() => onOpen(id)}>
				{words}
			</Button>
		);
	}
	return meeting.project == null ? (
		<span className="block text-soft">{words}</span>
	) : (
		<Link to={`/projects/${meeting.project}`} className="block">
			{words}
		</Link>
	);
}
