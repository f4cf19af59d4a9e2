import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { answer, api } from "../../api/client";
import type { RecordDto } from "../../api/schema";
import { Select } from "../../ui/Select";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import type { Said } from "./said";

/** An end with a kind letter, and the colleague it names. */
export function EndLetter({
	sort,
	record,
	said,
	wrong,
	onChange,
}: {
	sort: "Referred" | "NotAFit";
	record: RecordDto;
	said: Said;
	wrong: (field: string) => string | undefined;
	onChange: (part: Partial<Said>) => void;
}) {
	const colleagues = useQuery({
		queryKey: ["over", "people", "colleagues"],
		queryFn: () =>
			answer(
				api.GET("/api/people", { params: { query: { sort: "Colleague" } } }),
			),
	});
	const desk = useQuery({
		queryKey: ["project", record.id, "letter", said.colleague],
		queryFn: () =>
			answer(
				api.GET("/api/projects/{id}/letter", {
					params: {
						path: { id: record.id },
						query: {
							colleague: said.colleague ? Number(said.colleague) : undefined,
						},
					},
				}),
			),
		placeholderData: keepPreviousData,
	});
	const template = sort === "Referred" ? "referral" : "decline";
	const text = desk.data?.templates.find((one) => one.key === template);
	// filled anew with every colleague, until the owner has changed a word
	const [filled, setFilled] = useState<string>();
	useEffect(() => {
		if (!said.letter || !text) return;
		if (said.body && said.body !== filled) return;
		onChange({ subject: text.subject, body: text.body });
		setFilled(text.body);
	}, [said.letter, text]);
	return (
		<>
			{sort === "Referred" && (
				<Select
					label="Colleague"
					value={said.colleague}
					wrong={wrong("colleague")}
					onChange={(e) => onChange({ colleague: e.target.value })}
				>
					<option value="">nobody under People</option>
					{colleagues.data?.rows.map((one) => (
						<option key={one.id} value={one.id}>
							{one.name}
							{one.organisation && `, ${one.organisation}`}
						</option>
					))}
				</Select>
			)}
			{desk.data?.mail && (
				<Tick
					label={<>with a letter to {desk.data.to}</>}
					checked={said.letter}
					onChange={(checked) => onChange({ letter: checked })}
				/>
			)}
			{said.letter && (
				<>
					<TextField
						label="Subject"
						value={said.subject}
						wrong={wrong("subject")}
						onChange={(e) => onChange({ subject: e.target.value })}
					/>
					<TextArea
						label="Letter"
						rows={7}
						value={said.body}
						wrong={wrong("body") ?? wrong("text")}
						onChange={(e) => onChange({ body: e.target.value })}
					/>
				</>
			)}
		</>
	);
}
