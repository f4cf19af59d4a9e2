import { useEffect, useState } from "react";
import { answer, api } from "../api/client";
import type { FormField } from "../api/schema";

export type Answers = Record<string, string>;

/** The fields that stand on the page with these answers, by the studio's own rule; it decides again when they are sent. */
export function useShown(
	fields: readonly FormField[],
	answers: Answers,
): FormField[] {
	// only what others hang on can change what is shown
	const asked = fields.flatMap((field) => field.shownIf?.field ?? []);
	const given = Object.fromEntries(
		asked.map((key) => [key, answers[key] ?? ""]),
	);
	const question = JSON.stringify({ fields, answers: given });
	const [shown, setShown] = useState<readonly string[]>();
	const hangs = asked.length > 0;
	useEffect(() => {
		if (!hangs) return;
		let newest = true;
		answer(api.POST("/typed/shown", { body: JSON.parse(question) })).then(
			(keys) => newest && setShown(keys),
			() => undefined,
		);
		return () => {
			newest = false;
		};
	}, [hangs, question]);
	return fields.filter((field) =>
		shown && hangs ? shown.includes(field.key) : !field.shownIf,
	);
}
