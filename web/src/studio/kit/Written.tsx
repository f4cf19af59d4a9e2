import { useState } from "react";
import { CountField } from "../../ui/CountField";
import { LineField } from "../../ui/LineField";
import { Select } from "../../ui/Select";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { Part } from "./Part";

/** What is written into. */
export function Written() {
	const [text, setText] = useState("Harbour bakery wall");
	const [lines, setLines] = useState("Two coats.\nThe second when it is dry.");
	const [count, setCount] = useState<number | null>(14);
	const [way, setWay] = useState("transfer");
	return (
		<>
			<Part name="Text">
				<TextField
					label="Title"
					value={text}
					onChange={(e) => setText(e.target.value)}
				/>
				<TextField
					label="Title"
					about="empty"
					placeholder="as the client reads it"
					hint="shown on their page"
					value=""
					readOnly
				/>
				<TextField
					label="Title"
					about="refused"
					wrong="Write 1 to 200 characters."
					value=""
					readOnly
				/>
				<TextField label="Title" about="not now" value={text} disabled />
				<TextField
					label="Title that is read out"
					hidden
					value={text}
					onChange={(e) => setText(e.target.value)}
				/>
			</Part>
			<Part name="Text of several lines">
				<TextArea
					label="Words"
					rows={3}
					value={lines}
					onChange={(e) => setLines(e.target.value)}
				/>
				<TextArea
					label="Words"
					about="refused"
					rows={3}
					wrong="Say in a few words what should be different."
					value=""
					readOnly
				/>
			</Part>
			<Part name="Text on a rule">
				<div className="flex w-96 border-y-[1.5px] border-ink bg-sheet">
					<LineField
						label="Write a note"
						placeholder="Write here: a note"
						value={text}
						onChange={(e) => setText(e.target.value)}
					/>
				</div>
				<div className="w-80 bg-(--bar) p-2">
					<LineField
						look="bar"
						label="Write a slip here"
						placeholder="A slip: order paint fri"
						value=""
						readOnly
					/>
				</div>
			</Part>
			<Part name="Select">
				<Select
					label="How"
					value={way}
					onChange={(e) => setWay(e.target.value)}
				>
					<option value="transfer">by transfer</option>
					<option value="cash">in cash</option>
				</Select>
				<Select
					label="How"
					about="refused"
					wrong="Choose how it was paid."
					value=""
					onChange={() => undefined}
				>
					<option value="">Choose</option>
				</Select>
				<Select label="How" about="not now" disabled>
					<option>by transfer</option>
				</Select>
				<Select label="State" bare hidden>
					<option>in work</option>
					<option>done</option>
				</Select>
			</Part>
			<Part name="Count">
				<CountField
					label="Days before it is due"
					min={0}
					value={count}
					onChange={setCount}
				/>
				<CountField
					label="Days"
					about="refused"
					wrong="From 0 to 365."
					value={400}
					onChange={() => undefined}
				/>
			</Part>
		</>
	);
}
