import { useEffect, useState } from "react";
import { bytes } from "../../api/client";
import { Alert } from "../Alert";

const most = 100_000;

/** A plain text as it is written (UTF-8), its beginning where it is long. */
export default function TextShown({ address }: { address: string }) {
	const [text, setText] = useState<string>();
	const [trouble, setTrouble] = useState("");
	useEffect(() => {
		bytes(address).then(
			(read) => setText(new TextDecoder().decode(read)),
			(error: Error) => setTrouble(error.message),
		);
	}, [address]);
	if (trouble) return <Alert>{trouble}</Alert>;
	return (
		<section
			aria-label="Text"
			// biome-ignore lint/a11y/noNoninteractiveTabindex: what can be scrolled is reached by keys
			tabIndex={0}
			className="max-h-[70vh] overflow-auto border border-hair p-3 break-words whitespace-pre-wrap"
		>
			{text?.slice(0, most) ?? "The text is being opened …"}
			{text && text.length > most && (
				<b className="block pt-2 font-[650]">… the rest is in the file.</b>
			)}
		</section>
	);
}
