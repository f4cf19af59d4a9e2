import type { RecordDto } from "../../api/schema";
import { longestOf } from "./Inquiry";

/** What the client asked for, in their own words: where it is first read, and beside the letter that answers it. */
export function TheirWords({ record }: { record: RecordDto }) {
	const { answers } = record.about;
	if (record.path.stage !== "Lead" || answers.length === 0) return null;
	return (
		<blockquote className="max-h-32 overflow-auto border-l-4 border-theirs py-0.5 pl-3 whitespace-pre-line">
			{longestOf(answers).text}
		</blockquote>
	);
}
