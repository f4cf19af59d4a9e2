import { answer, api } from "../../api/client";
import type { ReviewReadDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { PinnedPicture } from "../../ui/PinnedPicture";
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
			{review.files.map((file) => {
				const pins = pinsOf(review, file.id);
				return pins.length > 0 && file.hasPreview ? (
					<figure key={file.id}>
						<PinnedPicture
							address={`/api/files/${file.id}/preview`}
							name={file.name}
							pins={pins}
						/>
						<figcaption>
							<Button asChild kind="word">
								<a href={`/api/files/${file.id}`}>{file.name}</a>
							</Button>{" "}
							<span className="text-soft">{file.about}</span>
						</figcaption>
					</figure>
				) : (
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
				);
			})}
			{review.said.map((said, at) => (
				<p
					key={`${said.at}${said.text}`}
					className="border-l-2 border-ink pl-3 whitespace-pre-line"
				>
					{said.file && (
						<b className="font-[650]">
							{at + 1}
							{said.where && `, ${said.where}`}:{" "}
						</b>
					)}
					{said.text}
					<span className="under block">{said.at}</span>
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

/** The places in a draft that were pointed at, each by the number of its remark. */
const pinsOf = (review: ReviewReadDto, file: number) =>
	review.said.flatMap((said, at) =>
		said.file === file && said.x !== null && said.y !== null
			? [{ x: said.x, y: said.y, number: at + 1 }]
			: [],
	);
