import type { HandoverWordsDto } from "../api/schema";
import { Button } from "../ui/Button";

/** What was said of the work as it was handed over. */
export function HandoverWords({ words }: { words: HandoverWordsDto }) {
	return (
		<dl className="max-w-2xl pt-3">
			{words.links && words.links.length > 0 && (
				<dd className="pb-2">
					<ul>
						{words.links.map((one) => (
							<li key={one.address} className="py-1">
								<Button asChild kind="word" className="break-all">
									<a href={one.address} target="_blank" rel="noreferrer">
										{one.address}
									</a>
								</Button>
								{one.use && <span className="block">{one.use}</span>}
							</li>
						))}
					</ul>
				</dd>
			)}
			{words.care && (
				<>
					<dt className="under">How to care for it, and how it may be used</dt>
					<dd className="pb-2 break-words whitespace-pre-line">{words.care}</dd>
				</>
			)}
			{words.goals && (
				<>
					<dt className="under">The goals, and how they were met</dt>
					<dd className="pb-2 break-words whitespace-pre-line">
						{words.goals}
					</dd>
				</>
			)}
			{words.after && (
				<>
					<dt className="under">What comes after</dt>
					<dd className="pb-2 break-words whitespace-pre-line">
						{words.after}
					</dd>
				</>
			)}
			{words.review && (
				<dd>
					<Button asChild kind="word">
						<a href={words.review} target="_blank" rel="noreferrer">
							Say a word about it in public
						</a>
					</Button>
				</dd>
			)}
		</dl>
	);
}
