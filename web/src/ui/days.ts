/** Calendar days as the API writes them (ISO 8601), for showing them and for walking through a month. */

const utc = (day: string) => new Date(`${day}T00:00:00Z`);
const iso = (date: Date) => date.toISOString().slice(0, 10);

const months = [
	"January",
	"February",
	"March",
	"April",
	"May",
	"June",
	"July",
	"August",
	"September",
	"October",
	"November",
	"December",
];
const weekdays = [
	"Monday",
	"Tuesday",
	"Wednesday",
	"Thursday",
	"Friday",
	"Saturday",
	"Sunday",
];

export const isDay = (text: string) => /^\d{4}-\d\d-\d\d$/.test(text);

const place = (day: string) => (utc(day).getUTCDay() + 6) % 7;

/** “Fri 12 Mar 2027”; any other text as it is. */
export function dayText(day: string): string {
	if (!isDay(day)) return day;
	const date = utc(day);
	return `${weekdays[place(day)]?.slice(0, 3)} ${date.getUTCDate()} ${months[date.getUTCMonth()]?.slice(0, 3)} ${date.getUTCFullYear()}`;
}

/** “Friday 12 March 2027”. */
export const dayName = (day: string) =>
	`${weekdays[place(day)]} ${utc(day).getUTCDate()} ${monthName(day)}`;

/** “March 2027”. */
export const monthName = (day: string) =>
	`${months[utc(day).getUTCMonth()]} ${utc(day).getUTCFullYear()}`;

export const monthOf = (day: string) => day.slice(0, 7);

export function plusDays(day: string, count: number): string {
	const date = utc(day);
	date.setUTCDate(date.getUTCDate() + count);
	return iso(date);
}

/** The same day of another month, or its last where it has no such day. */
export function plusMonths(day: string, count: number): string {
	const first = utc(`${monthOf(day)}-01`);
	first.setUTCMonth(first.getUTCMonth() + count + 1, 0);
	const last = first.getUTCDate();
	return `${iso(first).slice(0, 8)}${String(Math.min(last, Number(day.slice(8)))).padStart(2, "0")}`;
}

export const weekStart = (day: string) => plusDays(day, -place(day));

/** The weeks that a month touches, each from Monday to Sunday. */
export function weeksOf(day: string): string[][] {
	const weeks: string[][] = [];
	let from = weekStart(`${monthOf(day)}-01`);
	do {
		weeks.push([0, 1, 2, 3, 4, 5, 6].map((n) => plusDays(from, n)));
		from = plusDays(from, 7);
	} while (monthOf(from) === monthOf(day));
	return weeks;
}

/** Some days with one end of them changed; the other end follows where they would pass each other. */
export const withDay = (
	{ from, until }: { from: string; until: string },
	end: "from" | "until",
	day: string,
) =>
	end === "from"
		? { from: day, until: until < day ? day : until }
		: { from: from > day ? day : from, until: day };
