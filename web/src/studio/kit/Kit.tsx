import { useEffect } from "react";
import { Dated } from "./Dated";
import { Opened } from "./Opened";
import { Pressed } from "./Pressed";
import { Said } from "./Said";
import { Written } from "./Written";

/** Every part that pages are made of, in every state; looked at in light and dark. */
export default function Kit() {
	useEffect(() => {
		document.title = "The kit, Gesamt";
	}, []);
	return (
		<main className="px-5 pb-8">
			<h1 className="pt-4 pb-1">The kit</h1>
			<p className="pb-4 text-soft">
				What every page is made of, in each of its states.
			</p>
			<Pressed />
			<Written />
			<Dated />
			<Opened />
			<Said />
		</main>
	);
}
