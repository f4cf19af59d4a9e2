import { lazy, Suspense, useState } from "react";
import type { FileLook } from "../../api/schema";
import { Button } from "../Button";

// a page of many files has nothing of it to fetch until one is looked at
const FileWindow = lazy(() => import("./FileWindow"));

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
			{open && (
				<Suspense>
					<FileWindow {...file} onClose={() => setOpen(false)} />
				</Suspense>
			)}
		</>
	);
}
