import type { RecordDto } from "../../api/schema";
import { Block } from "./Block";

type Answers = RecordDto["about"]["answers"];

/** The client's own words: the longest of what they wrote. */
export const longestOf = (answers: Answers) =>
	answers.reduce((a, b) => (b.text.length > a.text.length ? b : a));

/** What the client wrote into the form; the longest answer, in their own words, first. */
export function Inquiry({ answers }: { answers: Answers }) {
	const longest = longestOf(answers);
	return (
		<Block title="The inquiry">
			<blockquote className="border-l-4 border-theirs py-1 pl-3 text-[15px] whitespace-pre-line">
				{longest.text}
			</blockquote>
			<dl className="text-[14.3px]">
				{answers
					.filter((answer) => answer !== longest)
					.map((answer) => (
						<div key={answer.question} className="pt-1.5">
							<dt className="under">{answer.question}</dt>
							<dd className="whitespace-pre-line">{answer.text}</dd>
						</div>
					))}
			</dl>
		</Block>
	);
}
