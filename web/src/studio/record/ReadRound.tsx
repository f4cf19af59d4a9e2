import { answer, api } from "../../api/client";
import type { ReviewReadDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { useAct } from "../useAct";
import { Thumb } from "./Thumb";

/** A round of review: what was put up and what was said of it. */
export function Round({
	review,
	onDone,
}: {
	review: ReviewReadDto;
	onDone: () => void;
}) {
	const act = useAct();
	const params = { path: { id: review.id } };
	const run = (how: "withdraw" | "reopen") => async () => {
		const done = await act.run(() =>
			answer(
				how === "withdraw"
					? api.POST("/api/reviews/{id}/withdraw", { params })
					: api.POST("/api/reviews/{id}/reopen", { params }),
			),
		);
		if (done) onDone();
	};
	return (
		<div className="grid gap-2">
			{review.files.map((file) => (
				<a
					key={file.id}
					className="flex items-center gap-3"
					href={`/api/files/${file.id}`}
				>
					<Thumb
						address={
							file.hasPreview ? `/api/files/${file.id}/preview` : undefined
						}
						name={file.name}
					/>
					<span>
						<span className="underline underline-offset-3">{file.name}</span>
						<span className="under block">{file.about}</span>
					</span>
				</a>
			))}
			{review.said.map((said) => (
				<p
					key={`${said.question}${said.text}`}
					className="border-l-2 border-ink pl-3 whitespace-pre-line"
				>
					{said.text}
					<span className="under block">{said.question}</span>
				</p>
			))}
			<Refused of={act.refusal} />
			{review.state === "Open" && (
				<div>
					<Button disabled={act.busy} onClick={run("withdraw")}>
						Take this round back
					</Button>
				</div>
			)}
			{review.state === "Approved" && (
				<div>
					<Button disabled={act.busy} onClick={run("reopen")}>
						The approval does not hold
					</Button>
				</div>
			)}
		</div>
	);
}
