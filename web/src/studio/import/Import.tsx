import { useEffect } from "react";
import { useParams } from "react-router";
import { Begin } from "./BeginImport";
import { One } from "./PastImport";

/** Takes over a table kept so far: choose a file, match its columns, look, take it over. */
export default function Import() {
	const id = useParams().id;
	useEffect(() => {
		document.title = "Take over a table, Gesamt";
	}, []);
	return (
		<main className="max-w-5xl px-5 pb-8">
			<div className="pt-4 pb-3">
				<h1>Take over a table</h1>
				<p className="text-soft">
					A table of projects or inquiries kept so far, saved as CSV or as a
					workbook (.xlsx), with the letters and files that belong to them. No
					project is made before you have seen how it reads, and all of it can
					be taken back. What was not taken over within 30 days is forgotten.
				</p>
			</div>
			{id ? <One key={id} id={Number(id)} /> : <Begin />}
		</main>
	);
}
