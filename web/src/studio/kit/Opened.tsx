import { useState } from "react";
import { Button } from "../../ui/Button";
import { Fold } from "../../ui/Fold";
import { Menu } from "../../ui/Menu";
import { Popover } from "../../ui/Popover";
import { Tick } from "../../ui/Tick";
import { Tip } from "../../ui/Tip";
import { useUndo } from "../../ui/Undo";
import { Window } from "../../ui/Window";
import { Part } from "./Part";

/** What opens in place, hangs from its button, or lies over the page. */
export function Opened() {
	const [window, setWindow] = useState(false);
	const [ticked, setTicked] = useState(true);
	const offer = useUndo();
	return (
		<>
			<Part name="Fold">
				<Fold className="w-72" line="What they answered to">
					The letter of Tuesday.
				</Fold>
				<Fold begin className="w-72" line={<b>As it will read</b>}>
					Good morning Oona, the wall is ready.
				</Fold>
			</Part>
			<Part name="Menu and popover">
				<Menu
					words="More"
					items={[
						{ words: "As it was laid out", act: () => undefined },
						{ words: "Keep as a mail file", act: () => undefined },
					]}
				/>
				<Popover words="Columns, 7">
					<Tick label="Client" checked={ticked} onChange={setTicked} />
				</Popover>
			</Part>
			<Part name="Tip">
				<Tip words="Mon 25 Jan 2027, 10:30">
					<Button kind="word">3 days ago</Button>
				</Tip>
			</Part>
			<Part name="Window and undo">
				<Button onClick={() => setWindow(true)}>Open a window</Button>
				<Window
					title="Move the opening day"
					open={window}
					onClose={() => setWindow(false)}
				>
					<p>For what is said once and then done.</p>
				</Window>
				<Button
					onClick={() =>
						offer({
							words: "Done: Order scaffold",
							undo: () => Promise.resolve(),
						})
					}
				>
					Do something that can be undone
				</Button>
			</Part>
		</>
	);
}
