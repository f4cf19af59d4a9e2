import { useState } from "react";
import { Button } from "../../ui/Button";
import { Choice, Choices } from "../../ui/Choice";
import { FilePick } from "../../ui/FilePick";
import { Kbd } from "../../ui/Kbd";
import { Tick } from "../../ui/Tick";
import { Part } from "./Part";

/** What is pressed, ticked and chosen. */
export function Pressed() {
	const [ticked, setTicked] = useState(true);
	const [chosen, setChosen] = useState<string>("week");
	const [files, setFiles] = useState<string[]>([]);
	return (
		<>
			<Part name="Button">
				<Button kind="go">Send the letter</Button>
				<Button kind="go" disabled>
					Send the letter
				</Button>
				<Button>Skip</Button>
				<Button disabled>Skip</Button>
				<Button>
					New inquiry <Kbd>i</Kbd>
				</Button>
				<Button kind="word">add a list</Button>
				<Button kind="word" size="small">
					take out
				</Button>
				<Button kind="word" disabled>
					up
				</Button>
				<Button kind="line">A line of a list that opens</Button>
				<Button asChild>
					<a href="/today">A link that looks like one</a>
				</Button>
			</Part>
			<Part name="Button on the client's side">
				<div className="client flex flex-wrap gap-3 bg-sheet p-4">
					<Button kind="brand" size="big">
						Choose this and go on to sign
					</Button>
					<Button kind="brand">Send</Button>
					<Button kind="brand" disabled>
						Send
					</Button>
					<Tick
						label="I have read this contract"
						checked={ticked}
						onChange={setTicked}
					/>
				</div>
			</Part>
			<Part name="Tick">
				<Tick label="on" checked={ticked} onChange={setTicked} />
				<Tick label="off" checked={!ticked} onChange={(on) => setTicked(!on)} />
				<Tick label="not now" checked disabled onChange={() => undefined} />
				<Tick
					label="with more under it"
					under="what follows from it"
					checked={ticked}
					onChange={setTicked}
				/>
				<Tick
					label="I have read this contract"
					wrong="Tick that you have read it."
					checked={false}
					onChange={() => undefined}
				/>
			</Part>
			<Part name="Choice">
				<Choices label="How long" value={chosen} onChange={setChosen}>
					<Choice value="day">a day</Choice>
					<Choice value="week" under="Monday to Friday">
						a week
					</Choice>
				</Choices>
				<Choices
					label="A time"
					className="flex gap-2"
					value={chosen}
					onChange={setChosen}
				>
					<Choice chip value="day">
						09:00
					</Choice>
					<Choice chip value="week">
						10:30
					</Choice>
				</Choices>
				<Choices
					label="Which one"
					wrong="Choose one of them."
					value={undefined}
					onChange={() => undefined}
				>
					<Choice value="a">the wall</Choice>
					<Choice value="b">the door</Choice>
				</Choices>
			</Part>
			<Part name="Files">
				<FilePick
					multiple
					onFiles={(picked) => setFiles(picked.map((one) => one.name))}
				>
					Choose files
				</FilePick>
				<FilePick
					kind="word"
					onFiles={(picked) => setFiles(picked.map((one) => one.name))}
				>
					Keep a file
				</FilePick>
				<FilePick disabled onFiles={() => undefined}>
					Not now
				</FilePick>
				<span className="under">{files.join(", ") || "none chosen"}</span>
			</Part>
		</>
	);
}
