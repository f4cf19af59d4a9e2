import { upload } from "../../api/client";
import type { PaperFileDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { FilePick } from "../../ui/FilePick";
import { Refused } from "../../ui/Refused";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { useAct } from "../useAct";
import type { KindPart } from "./KindSettings";

/** What the clients of a kind read to begin with, and the questions they always ask. */
export function KindIntroduction({ said, wrong, set }: KindPart) {
	const now = said.introduction ?? {
		text: "",
		film: "",
		questions: [],
		filmFile: null,
		readFirst: false,
	};
	const act = useAct();
	const keep = (film: File) =>
		act.run(async () => {
			const { hash } = await upload<PaperFileDto>(
				`/api/introduction-films?name=${encodeURIComponent(film.name)}`,
				film,
			);
			change({ filmFile: hash });
		});
	const change = (part: Partial<typeof now>) =>
		set({ introduction: { ...now, ...part } });
	const put = (at: number, part: Partial<(typeof now.questions)[0]>) =>
		change({
			questions: now.questions.map((one, i) =>
				i === at ? { ...one, ...part } : one,
			),
		});
	return (
		<div className="grid gap-3">
			<TextArea
				label="To begin with"
				hint="How you work, what happens when, what they can leave to you"
				rows={7}
				value={now.text}
				wrong={wrong("introduction.text")}
				onChange={(e) => change({ text: e.target.value })}
			/>
			<TextField
				label="A film, by its link"
				value={now.film}
				wrong={wrong("introduction.film")}
				onChange={(e) => change({ film: e.target.value })}
			/>
			<div className="flex flex-wrap items-center gap-3">
				<FilePick accept="video/mp4" onFiles={([film]) => film && keep(film)}>
					{now.filmFile ? "Another film as a file" : "A film as a file (MP4)"}
				</FilePick>
				{now.filmFile && (
					<>
						<span className="text-soft">A film is kept here.</span>
						<Button kind="word" onClick={() => change({ filmFile: null })}>
							take the film out
						</Button>
					</>
				)}
				{wrong("introduction.filmFile") && (
					<p className="wrong">{wrong("introduction.filmFile")}</p>
				)}
				<Refused of={act.refusal} />
			</div>
			<Tick
				label="They only read their page until you spoke after the booking"
				under="Tasks, lists, boards, drafts and the run sheet open to their changes with the first call or meeting after it was booked."
				checked={now.readFirst ?? false}
				onChange={(readFirst) => change({ readFirst })}
			/>
			<fieldset>
				<legend className="label">Questions that are always asked</legend>
				<ul className="grid gap-3">
					{now.questions.map((one, i) => (
						<li
							key={i}
							aria-label={one.question || "New question"}
							className="grid gap-2 border-b border-hair pb-3"
						>
							<TextField
								label="Question"
								value={one.question}
								wrong={wrong(`introduction.questions[${i}].question`)}
								onChange={(e) => put(i, { question: e.target.value })}
							/>
							<TextArea
								label="Answer"
								rows={2}
								value={one.answer}
								wrong={wrong(`introduction.questions[${i}].answer`)}
								onChange={(e) => put(i, { answer: e.target.value })}
							/>
							<span>
								<Button
									kind="word"
									size="small"
									onClick={() =>
										change({
											questions: now.questions.filter((_, at) => at !== i),
										})
									}
								>
									take out<span className="sr-only">: {one.question}</span>
								</Button>
							</span>
						</li>
					))}
				</ul>
				<Button
					className="mt-2"
					onClick={() =>
						change({
							questions: [...now.questions, { question: "", answer: "" }],
						})
					}
				>
					Add a question
				</Button>
			</fieldset>
		</div>
	);
}
