import { useState } from "react";
import type { LetterDeskDto, LetterFileDto } from "../../api/schema";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";

export type Draft = {
	subject: string;
	body: string;
	template?: string;
	files?: readonly LetterFileDto[];
	sendAt?: string;
};

const progress = "progress";

/** The studio's letters, and the one of progress where there is something to tell: that one begins filled, for it is a draft to be struck out from. */
const toBeginWith = (desk: LetterDeskDto) =>
	[
		...desk.templates,
		...desk.usual
			.filter((one) => one.key === progress)
			.map((one) => ({ ...one, name: "How it goes" })),
	]
		.filter((one) => one.key !== progress || one.gaps.length === 0)
		.map((one) =>
			one.key === progress
				? { ...one, openSubject: one.subject, openBody: one.body }
				: one,
		);

export function beginning(
	desk: LetterDeskDto,
	first?: string,
	answers?: number,
) {
	const template = toBeginWith(desk).find((one) => one.key === first);
	if (template)
		return {
			subject: template.openSubject,
			body: template.openBody,
			template: template.key,
			files: template.files,
		};
	const letter = desk.earlier.find((one) => one.id === answers);
	const subject = letter
		? `Re: ${letter.subject.replace(/^(re:\s*)+/i, "")}`
		: "";
	return {
		subject,
		body: `\n\n${desk.signature}`,
	};
}

/** One of the studio's letters to begin with, by its name or its number. */
export function Beginning({
	desk,
	draft,
	onChange,
}: {
	desk: LetterDeskDto;
	draft: Draft;
	onChange: (draft: Draft) => void;
}) {
	const [number, setNumber] = useState("");
	function begin(key?: string) {
		const template = toBeginWith(desk).find((one) => one.key === key);
		if (template)
			onChange({
				...draft,
				subject: template.openSubject,
				body: template.openBody,
				template: template.key,
				files: template.files,
			});
	}
	return (
		<div className="grid grid-cols-[84px_1fr] gap-3">
			<TextField
				label="Number"
				inputMode="numeric"
				value={number}
				onChange={(e) => {
					setNumber(e.target.value);
					begin(
						desk.templates.find((one) => String(one.number) === e.target.value)
							?.key,
					);
				}}
			/>
			<Select
				label="Begin with"
				value={draft.template ?? ""}
				onChange={(e) => begin(e.target.value)}
			>
				<option value="">A letter of yours</option>
				{toBeginWith(desk).map((template) => (
					<option key={template.key} value={template.key}>
						{template.number ? `${template.number}  ` : ""}
						{template.name}
					</option>
				))}
			</Select>
		</div>
	);
}
