import { Link, useNavigate } from "react-router";
import { answer, api } from "../../api/client";
import type { FirstStepDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { useUndo } from "../../ui/Undo";
import { useAct } from "../useAct";

/** What a new studio still has to look at; each line goes by being done, or by saying so. */
export function FirstSteps({ steps }: { steps: readonly FirstStepDto[] }) {
	const act = useAct("below");
	const offer = useUndo();
	if (steps.length === 0) return null;
	return (
		<section aria-labelledby="first-steps" className="panel mb-6 px-4 py-3">
			<div className="flex flex-wrap items-baseline gap-x-3">
				<h2 id="first-steps">To begin with</h2>
				<span className="text-soft">
					{steps.length} step{steps.length === 1 ? "" : "s"}, in any order, now
					or later
				</span>
				{steps[0]?.step !== "Choose" && <Practice />}
			</div>
			<ul className="pt-1">
				{steps.map((step) => (
					<li
						key={step.step}
						className="flex flex-wrap items-baseline gap-x-3 border-t border-hair py-2"
					>
						<Button asChild kind="word" className="font-[650]">
							<Link to={step.to}>{step.title}</Link>
						</Button>
						<span className="min-w-0 flex-1 basis-64 text-soft">
							{step.words}
						</span>
						{step.step !== "Choose" && (
							<Button
								kind="word"
								size="small"
								disabled={act.busy}
								onClick={async () => {
									if (await act.run(() => mark(step.step, "done")))
										offer({
											words: `${step.title}: done`,
											undo: () => act.run(() => mark(step.step, "open")),
										});
								}}
							>
								done<span className="sr-only">: {step.title}</span>
							</Button>
						)}
					</li>
				))}
			</ul>
		</section>
	);
}

const mark = (step: FirstStepDto["step"], to: "done" | "open") =>
	answer(
		api.POST(`/api/first-steps/{step}/${to}`, { params: { path: { step } } }),
	);

/** A whole project to try things on, of which nothing leaves the house. */
function Practice() {
	const act = useAct("below");
	const navigate = useNavigate();
	return (
		<Button
			className="ml-auto"
			disabled={act.busy}
			onClick={() =>
				act.run(async () => {
					const { id } = await answer(api.POST("/api/rehearsals/practice"));
					navigate(`/projects/${id}`);
				})
			}
		>
			Try it on a practice project
		</Button>
	);
}
