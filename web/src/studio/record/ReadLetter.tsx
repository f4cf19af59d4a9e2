import { useState } from "react";
import { answer, api } from "../../api/client";
import type { ReaderDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { LookAt } from "../../ui/files/LookAt";
import { Menu } from "../../ui/Menu";
import { Refused } from "../../ui/Refused";
import { useAct } from "../useAct";

/** What belongs to a letter besides its text: its files, an answer, taking it back. */
export function Letter({
	letter,
	onWrite,
	onClose,
}: {
	letter: NonNullable<ReaderDto["letter"]>;
	onWrite: (what: string) => void;
	onClose: () => void;
}) {
	const act = useAct();
	const [laidOut, setLaidOut] = useState(false);
	const address = `/api/letters/${letter.id}.eml`;
	return (
		<div className="grid gap-3 pt-3">
			{laidOut && (
				<iframe
					title="The letter as it was laid out"
					sandbox="allow-popups"
					className="h-[60vh] w-full border border-hair bg-white"
					src={`/api/letters/${letter.id}/html`}
				/>
			)}
			{letter.problem && (
				<p className="font-[650]">It was refused: {letter.problem}</p>
			)}
			{letter.files.length > 0 && (
				<ul aria-label="Files">
					{letter.files.map((file) => (
						<li key={file.address}>
							<Button asChild kind="word">
								<a href={file.address}>{file.name}</a>
							</Button>{" "}
							<LookAt {...file} />
						</li>
					))}
				</ul>
			)}
			<div className="flex flex-wrap gap-2">
				{letter.canAnswer && (
					<Button kind="go" onClick={() => onWrite(`answer.${letter.id}`)}>
						Answer it
					</Button>
				)}
				{letter.canWriteAgain && (
					<Button kind="go" onClick={() => onWrite("letter")}>
						Write it again
					</Button>
				)}
				{letter.canTakeBack && (
					<Button
						disabled={act.busy}
						onClick={async () => {
							if (
								await act.run(() =>
									answer(
										api.POST("/api/letters/{id}/take-back", {
											params: { path: { id: letter.id } },
										}),
									),
								)
							)
								onClose();
						}}
					>
						Take it back
					</Button>
				)}
				{letter.hasHtml ? (
					<Menu
						words="More"
						items={[
							{
								words: laidOut ? "Only its words" : "As it was laid out",
								act: () => setLaidOut(!laidOut),
							},
							{
								words: "Keep as a mail file",
								act: () => location.assign(address),
							},
						]}
					/>
				) : (
					<Button asChild>
						<a href={address}>Keep as a mail file</a>
					</Button>
				)}
			</div>
			<Refused of={act.refusal} />
		</div>
	);
}
