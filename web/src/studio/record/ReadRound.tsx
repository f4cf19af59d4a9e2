import { type ComponentProps, lazy, Suspense } from "react";
import { answer, api } from "../../api/client";
import type { ReviewFileDto, ReviewReadDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { FileShown } from "../../ui/files/FileShown";
import { LookAt } from "../../ui/files/LookAt";
import { Pinned } from "../../ui/files/Pinned";
import { Refused } from "../../ui/Refused";
import { useAct } from "../useAct";
import { Thumb } from "./Thumb";

const PagesShown = lazy(() => import("../../ui/files/PagesShown"));

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
				<Draft key={file.id} file={file} pins={pinsOf(review, file.id)} />
			))}
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

type Pins = ComponentProps<typeof PagesShown>["pins"] & {};

/** What was put up: in full where a place of it was pointed at, else small, to be looked at. */
function Draft({ file, pins }: { file: ReviewFileDto; pins: Pins }) {
	const address = `/api/files/${file.id}`;
	const isPicture = file.look === "Picture";
	if (pins.length === 0 || !(isPicture || file.look === "Pages"))
		return (
			<div className="flex items-center gap-3">
				<Thumb
					address={isPicture ? `${address}/preview` : undefined}
					name={file.name}
				/>
				<span>
					<Button asChild kind="word">
						<a href={address}>{file.name}</a>
					</Button>
					<span className="under block">{file.about}</span>
					<LookAt look={file.look} address={address} name={file.name} />
				</span>
			</div>
		);
	return (
		<figure>
			{isPicture ? (
				<Pinned name={file.name} pins={pins}>
					<FileShown look="Picture" address={address} name={file.name} />
				</Pinned>
			) : (
				<Suspense fallback={<p className="under">A moment …</p>}>
					<PagesShown address={address} name={file.name} pins={pins} />
				</Suspense>
			)}
			<figcaption>
				<Button asChild kind="word">
					<a href={address}>{file.name}</a>
				</Button>{" "}
				<span className="text-soft">{file.about}</span>
			</figcaption>
		</figure>
	);
}

/** The places in a draft that were pointed at, each by the number of its remark. */
const pinsOf = (review: ReviewReadDto, file: number): Pins =>
	review.said.flatMap(({ file: of, x, y, page }, at) =>
		of === file && x !== null && y !== null
			? [{ x, y, page: page ?? 1, number: at + 1 }]
			: [],
	);
