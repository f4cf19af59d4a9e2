import { useEffect, useRef, useState } from "react";
import { useSearchParams } from "react-router";
import { TextField } from "../ui/TextField";

/** What a list is narrowed by: it stands in the address, so that it is kept, linked and gone back to. */
export function useNarrowing() {
	const [search, setSearch] = useSearchParams();
	return {
		search,
		set(name: string, value: string) {
			const next = new URLSearchParams(search);
			if (value) next.set(name, value);
			else next.delete(name);
			setSearch(next, { replace: true });
		},
	};
}

const rest = 150;

/** Words to look for. What is typed stays as it is typed; the address follows once the typing rests, since it is slower than quick hands. */
export function WordsField({
	label,
	value,
	onChange,
}: {
	label: string;
	value: string;
	onChange: (words: string) => void;
}) {
	const [words, setWords] = useState(value);
	const said = useRef(value);
	const tell = useRef(onChange);
	tell.current = onChange;
	useEffect(() => {
		if (value === said.current) return;
		said.current = value;
		setWords(value);
	}, [value]);
	useEffect(() => {
		if (words === said.current) return;
		const timer = setTimeout(() => {
			said.current = words;
			tell.current(words);
		}, rest);
		return () => clearTimeout(timer);
	}, [words]);
	return (
		<TextField
			label={label}
			value={words}
			onChange={(e) => setWords(e.target.value)}
		/>
	);
}
