import { useState } from "react";
import { newKey } from "../../api/client";
import type { Refusal } from "../../api/refusal";
import type { ListDto, ListEntryDto } from "../../api/schema";
import { Button } from "../Button";
import { Refused } from "../Refused";
import { TextArea } from "../TextArea";
import type { ListActs } from "./acts";

/** Notes that are read together, and written paragraph by paragraph, so that nobody overwrites the other's. */
export function Paragraphs({ list, acts }: { list: ListDto; acts?: ListActs }) {
	const [open, setOpen] = useState<string>();
	const [fresh, setFresh] = useState(newKey);
	const edits = acts && list.edits ? acts : undefined;
	return (
		<div className="grid gap-3">
			{list.entries.map((entry) =>
				entry.key === open && edits ? (
					<Writing
						key={entry.key}
						label="Paragraph"
						text={entry.cells[0]?.text ?? ""}
						keep={(words) => edits.save(entry.key, entry.edition, { words })}
						onClose={() => setOpen(undefined)}
					/>
				) : (
					<Paragraph
						key={entry.key}
						entry={entry}
						acts={edits}
						onOpen={() => setOpen(entry.key)}
					/>
				),
			)}
			{list.entries.length === 0 && (
				<p className="text-soft">Nothing is written here yet.</p>
			)}
			{edits &&
				(open === fresh ? (
					<Writing
						key={fresh}
						label="A new paragraph"
						text=""
						keep={(words) => edits.save(fresh, 0, { words })}
						onClose={() => setOpen(undefined)}
						onKept={() => {
							setFresh(newKey());
							setOpen(undefined);
						}}
					/>
				) : (
					<div>
						<Button onClick={() => setOpen(fresh)}>Add a paragraph</Button>
					</div>
				))}
		</div>
	);
}

function Paragraph({
	entry,
	acts,
	onOpen,
}: {
	entry: ListEntryDto;
	acts?: ListActs;
	onOpen: () => void;
}) {
	const [refusal, setRefusal] = useState<Refusal>();
	const run = (what: () => Promise<unknown>) =>
		what().then(
			() => setRefusal(undefined),
			(refused) => setRefusal(refused as Refusal),
		);
	const name = entry.cells[0]?.words.split("\n")[0]?.slice(0, 40);
	return (
		<div className={entry.mark ? "border-l-[3px] border-ink pl-3" : ""}>
			<p
				className={`max-w-[70ch] break-words whitespace-pre-line ${entry.struck ? "text-soft line-through" : ""}`}
			>
				{entry.cells[0]?.words}
			</p>
			{entry.mark && <p className="text-small font-[650]">{entry.mark}</p>}
			{acts && (
				<p className="flex gap-3 text-small">
					<Button kind="word" onClick={onOpen}>
						Change<span className="sr-only">: {name}</span>
					</Button>
					<Button
						kind="word"
						onClick={() => run(() => acts.strike(entry, !entry.struck))}
					>
						{entry.struck ? "Put it back" : "Strike it out"}
						<span className="sr-only">: {name}</span>
					</Button>
					{acts.takeOut && (
						<Button
							kind="word"
							onClick={() =>
								run(() => acts.takeOut?.(entry) ?? Promise.resolve())
							}
						>
							Take it out<span className="sr-only">: {name}</span>
						</Button>
					)}
				</p>
			)}
			<Refused of={refusal} />
		</div>
	);
}

function Writing({
	label,
	text,
	keep,
	onClose,
	onKept = onClose,
}: {
	label: string;
	text: string;
	keep: (words: string) => Promise<unknown>;
	onClose: () => void;
	onKept?: () => void;
}) {
	const [words, setWords] = useState(text);
	const [refusal, setRefusal] = useState<Refusal>();
	return (
		<form
			className="grid max-w-[70ch] gap-2"
			onSubmit={async (event) => {
				event.preventDefault();
				try {
					await keep(words);
					onKept();
				} catch (refused) {
					setRefusal(refused as Refusal);
				}
			}}
		>
			<TextArea
				label={label}
				rows={4}
				autoFocus
				value={words}
				wrong={refusal?.of("cells.words") ?? refusal?.of("cells")}
				onChange={(e) => setWords(e.target.value)}
			/>
			<Refused of={refusal} />
			<div className="flex gap-2">
				<Button kind="go" type="submit">
					Keep it
				</Button>
				<Button onClick={onClose}>Never mind</Button>
			</div>
		</form>
	);
}
