import type { IntroductionDto } from "../api/schema";
import { Button } from "../ui/Button";
import { Fold } from "../ui/Fold";
import { AskPart } from "./AskPart";
import type { PartProps } from "./Parts";

/** What the studio tells its clients to begin with: a text, a film, the questions that are always asked. */
export default function IntroductionPart({
	said,
	page,
	link,
	reload,
	files,
}: PartProps & { said: IntroductionDto }) {
	return (
		<section id="introduction" aria-label="To begin with">
			<h2 className="rule pb-1.5">To begin with</h2>
			{said.text && (
				<p className="max-w-2xl py-2 break-words whitespace-pre-line">
					{said.text}
				</p>
			)}
			{said.film && (
				<p className="py-1">
					<Button asChild>
						<a href={said.film} target="_blank" rel="noreferrer">
							Watch the film
						</a>
					</Button>
				</p>
			)}
			{said.filmFile && (
				<video
					controls
					preload="metadata"
					className="my-2 w-full max-w-2xl border border-hair"
					src={
						files
							? `/api/paper-files/${said.filmFile}`
							: `/p/${link}/api/introduction/film`
					}
				>
					<track kind="captions" />
				</video>
			)}
			{said.questions.map((one) => (
				<Fold
					key={one.question}
					className="border-b border-hair py-2"
					line={one.question}
				>
					<p className="pt-1 break-words whitespace-pre-line">{one.answer}</p>
				</Fold>
			))}
			{!files && (
				<AskPart
					part="Introduction"
					link={link}
					owner={page.studio.owner}
					reload={reload}
				/>
			)}
		</section>
	);
}
