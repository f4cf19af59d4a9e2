import { useState } from "react";
import type { FileLook } from "../../api/schema";
import { Button } from "../Button";
import { Window } from "../Window";
import { FileShown } from "./FileShown";

/** Opens a window that shows a file; nothing where it can only be fetched. */
export function LookAt(file: {
	look: FileLook;
	address: string;
	name: string;
}) {
	const [open, setOpen] = useState(false);
	if (file.look === "Nothing") return null;
	return (
		<>
			<Button kind="word" onClick={() => setOpen(true)}>
				Look at it
				<span className="sr-only">: {file.name}</span>
			</Button>
			<Window
				title={file.name}
				open={open}
				wide="page"
				onClose={() => setOpen(false)}
			>
				<FileShown {...file} />
			</Window>
		</>
	);
}
