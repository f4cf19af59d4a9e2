/** A day of a run sheet whose date is not known: “2 days before”. */
export function dayWords(day: number): string {
	if (day === 0) return "The day itself";
	const count = Math.abs(day);
	return `${count} day${count === 1 ? "" : "s"} ${day < 0 ? "before" : "after"}`;
}
