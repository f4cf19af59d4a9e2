import { Link } from "react-router";
import { Button } from "../../ui/Button";

/** Says that a letter would reach nobody, and where that is changed. */
export function Stays({ words }: { words: string }) {
	return (
		<p role="status" className="border-l-4 border-ink pl-3">
			{words}{" "}
			<Button asChild kind="word">
				<Link to="/studio#mail">Set your mail</Link>
			</Button>
		</p>
	);
}
