import { Link } from "react-router";

/** Says that a letter would reach nobody, and where that is changed. */
export function Stays({ words }: { words: string }) {
	return (
		<p role="status" className="border-l-4 border-ink pl-3">
			{words}{" "}
			<Link className="link" to="/studio#mail">
				Set your mail
			</Link>
		</p>
	);
}
