import { useEffect, useRef } from "react";
import { useSearchParams } from "react-router";

/** What an address asks for is opened once, as where Find leads to an act of a page; after that the address is the page's own. */
export function useOpens(name: string, open: (what: string) => void) {
	const [search, setSearch] = useSearchParams();
	const what = search.get(name);
	const latest = useRef(open);
	useEffect(() => {
		latest.current = open;
	});
	useEffect(() => {
		if (!what) return;
		latest.current(what);
		setSearch(
			(before) => {
				const left = new URLSearchParams(before);
				left.delete(name);
				return left;
			},
			{ replace: true },
		);
	}, [what, name, setSearch]);
}
