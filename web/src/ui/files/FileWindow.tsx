import type { FileLook } from "../../api/schema";
import { Window } from "../Window";
import { FileShown } from "./FileShown";

/** A window that shows a file. */
export default function FileWindow({
	onClose,
	...file
}: {
	look: FileLook;
	address: string;
	name: string;
	onClose: () => void;
}) {
	return (
		<Window title={file.name} open wide="page" onClose={onClose}>
			<FileShown {...file} />
		</Window>
	);
}
