import { answer, api } from "../api/client";
import { type About, Labelled } from "./Labelled";
import { useTyped } from "./useTyped";

/**
 * A number, a size or a range of amounts as people write them: “about 24”, “6 x 4”, “1200-2000”.
 * It stays as it was written; what it is read as stands beneath it.
 */
export function SizeField({
	sort,
	unit,
	value,
	hint,
	wrong,
	placeholder,
	onChange,
	...about
}: About & {
	sort: "Number" | "Amount";
	unit?: string | null;
	value: string;
	placeholder?: string;
	onChange: (value: string) => void;
}) {
	const typed = useTyped(
		(text) =>
			answer(
				sort === "Number"
					? api.GET("/typed/size", {
							params: { query: { text, unit: unit ?? undefined } },
						})
					: api.GET("/typed/range", { params: { query: { text } } }),
			),
		value,
		asTyped,
		onChange,
	);
	return (
		<Labelled
			{...about}
			wrong={typed.wrong ?? wrong}
			hint={typed.words ? <span aria-live="polite">{typed.words}</span> : hint}
		>
			{(tied) => (
				<input
					className="field num"
					inputMode="text"
					autoComplete="off"
					placeholder={placeholder}
					value={typed.text}
					onChange={(e) => typed.type(e.target.value)}
					onBlur={typed.leave}
					onKeyDown={typed.enter}
					aria-busy={typed.busy}
					{...tied}
				/>
			)}
		</Labelled>
	);
}

const asTyped = (text: string) => text;
