import { answer, api } from "../api/client";
import { type About, Labelled } from "./Labelled";
import { useTyped } from "./useTyped";

/** An amount of money in the studio's currency, with its decimals and thousands as people write them; shown at once as it is read. */
export function AmountField({
	value,
	hint,
	wrong,
	placeholder,
	disabled,
	onChange,
	...about
}: About & {
	/** A number such as “1200.5”, or what was typed until it reads as one. */
	value: string;
	placeholder?: string;
	disabled?: boolean;
	onChange: (value: string) => void;
}) {
	const typed = useTyped(read, value, asTyped, onChange);
	return (
		<Labelled
			{...about}
			wrong={typed.wrong ?? wrong}
			hint={typed.words ? <span aria-live="polite">{typed.words}</span> : hint}
		>
			{(tied) => (
				<input
					className="field num"
					inputMode="decimal"
					autoComplete="off"
					placeholder={placeholder}
					value={typed.text}
					disabled={disabled}
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

const read = (text: string) =>
	answer(api.GET("/typed/amount", { params: { query: { text } } }));

const asTyped = (text: string) => text;
