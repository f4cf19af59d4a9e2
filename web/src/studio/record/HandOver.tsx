import { useState } from "react";
import { answer, api } from "../../api/client";
import type { RecordDto } from "../../api/schema";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { Carried } from "./Carried";

/** Hands over: the final files, each with a word on its use, and the letter that says so. */
export function HandOver({
	record,
	onClose,
}: {
	record: RecordDto;
	onClose: () => void;
}) {
	const finals = record.sheet.work.files.filter(
		(file) => file.group === "Final",
	);
	const [uses, setUses] = useState<Record<number, string>>(() =>
		Object.fromEntries(finals.map((file) => [file.id, file.use])),
	);
	const goals = record.about.brief.parts.find((part) => part.key === "goals");
	const [words, setWords] = useState({
		goals: goals && !goals.private ? goals.text : "",
		after: "",
		review: "",
		care: "",
	});
	const [links, setLinks] = useState("");
	const [open, setOpen] = useState<number[]>([]);
	const mine = record.sheet.tasks.open.filter((task) => !task.kept.isClients);
	return (
		<Carried
			project={record.id}
			title="Hand over the work"
			template="handover"
			button="Hand over"
			onClose={onClose}
			send={(letter) =>
				answer(
					api.POST("/api/projects/{id}/handover", {
						params: { path: { id: record.id } },
						body: {
							files: finals.map((file) => ({
								file: file.id,
								use: uses[file.id] ?? "",
							})),
							done: mine
								.filter((task) => !open.includes(task.id))
								.map((task) => task.id),
							words: { ...words, links: linksIn(links) },
							...letter,
						},
					}),
				)
			}
		>
			{(refusal) => (
				<>
					{finals.length === 0 && (
						<p className="under">
							There is no final file. Work that is not a file is handed over all
							the same; keep files as final first, if there are any.
						</p>
					)}
					{finals.map((file) => (
						<TextField
							key={file.id}
							label={`What ${file.name} is for`}
							placeholder="for print, 300 dpi; keep it"
							value={uses[file.id] ?? ""}
							wrong={refusal?.of(`use:${file.id}`)}
							onChange={(e) => setUses({ ...uses, [file.id]: e.target.value })}
						/>
					))}
					<TextArea
						label="What is handed over as a link"
						hint="one on each line, with what it is for behind it"
						placeholder="https://… the film, for your own site"
						rows={2}
						value={links}
						wrong={refusal?.of("links")}
						onChange={(e) => setLinks(e.target.value)}
					/>
					<TextArea
						label="How to care for it, and how it may be used"
						rows={2}
						value={words.care}
						wrong={refusal?.of("care")}
						onChange={(e) => setWords({ ...words, care: e.target.value })}
					/>
					<TextArea
						label="The goals, and how they were met"
						hint="stands on their page beside the files, as all below"
						rows={3}
						value={words.goals}
						wrong={refusal?.of("goals")}
						onChange={(e) => setWords({ ...words, goals: e.target.value })}
					/>
					<TextArea
						label="What comes after"
						hint="upkeep, what you offer next"
						rows={2}
						value={words.after}
						wrong={refusal?.of("after")}
						onChange={(e) => setWords({ ...words, after: e.target.value })}
					/>
					<TextField
						label="Where they can speak of it in public"
						hint="a link, if you want one"
						value={words.review}
						wrong={refusal?.of("review")}
						onChange={(e) => setWords({ ...words, review: e.target.value })}
					/>
					{mine.length > 0 && (
						<fieldset className="grid gap-0.5">
							<legend className="label">Done with it</legend>
							{mine.map((task) => (
								<Tick
									key={task.id}
									label={task.kept.title}
									checked={!open.includes(task.id)}
									onChange={(done) =>
										setOpen(
											done
												? open.filter((one) => one !== task.id)
												: [...open, task.id],
										)
									}
								/>
							))}
						</fieldset>
					)}
					<p className="under">
						The part “Files” of the client page opens with it, and the closing
						steps become tasks.
					</p>
				</>
			)}
		</Carried>
	);
}

/** “https://… for the newsletter”: an address, and what it is for. */
const linksIn = (lines: string) =>
	lines
		.split("\n")
		.map((line) => line.trim())
		.filter(Boolean)
		.map((line) => {
			const [address = "", ...use] = line.split(/\s+/);
			return { address, use: use.join(" ") };
		});
