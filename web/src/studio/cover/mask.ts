/** What stands in the place of a name or an amount; nobody types it, so that what holds it is never saved. */
export const masked = "▪▪▪";

const currencies = Intl.supportedValuesOf("currency").join("|");

/** “€ 6 642.00”, “GBP 12”: the sign stays. */
const amounts = new RegExp(
	`(€|(?<!\\p{L})(?:${currencies}))([\\u00a0 ]?)[-−]?\\d[\\d.,’\\u00a0\\u202f]*(?: \\d{3}(?!\\d))*(?:[.,]\\d+)?`,
	"gu",
);

/** “3 985.20”: figures that stand in a column of amounts. */
const figures =
	/(?<![\d:.,])\d{1,3}(?:[.,’\u00a0\u202f ]?\d{3})*[.,]\d{2}(?![\d:])/gu;

const mails = /[^\s@<>"“]+@[^\s@<>"”]+/gu;

const words = /\p{L}[\p{L}\p{M}’']*/gu;

/** A text without its amounts, and without the words by which somebody could be known. */
export function maskText(text: string, names: ReadonlySet<string>): string {
	return text
		.replace(mails, masked)
		.replace(amounts, (_, sign, gap) => `${sign}${gap}${masked}`)
		.replace(figures, masked)
		.replace(words, (word) =>
			names.has(word) || names.has(word.replace(/[’']s?$/u, ""))
				? masked
				: word,
		);
}

/** What a thing is known by is sent back and never shown: a source called as its finder is opened covered too. */
const known = "key";

/** An answer of the server with every text masked; what it is known by stays. */
export function maskAll<T>(data: T, names: ReadonlySet<string>): T {
	if (typeof data === "string") return maskText(data, names) as T;
	if (Array.isArray(data)) return data.map((one) => maskAll(one, names)) as T;
	if (data !== null && typeof data === "object")
		return Object.fromEntries(
			Object.entries(data).map(([name, value]) => [
				name,
				name === known ? value : maskAll(value, names),
			]),
		) as T;
	return data;
}
