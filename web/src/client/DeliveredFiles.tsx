import { useState } from "react";
import { answer, api, upload } from "../api/client";
import type { ClientFileDto } from "../api/schema";
import { Alert } from "../ui/Alert";
import { Button } from "../ui/Button";
import { FilePick } from "../ui/FilePick";
import { LookAt } from "../ui/files/LookAt";
import { AskPart } from "./AskPart";
import { HandoverWords } from "./HandoverWords";
import type { PartProps } from "./Parts";

/** What was handed over, each with a word on its use, and what the client sends. */
export default function DeliveredFiles({
	page,
	link,
	reload,
	files,
}: PartProps) {
	const part = page.parts.files!;
	const [error, setError] = useState<Error>();
	const [busy, setBusy] = useState(false);
	async function run(act: () => Promise<unknown>) {
		setBusy(true);
		setError(undefined);
		try {
			await act();
			await reload();
		} catch (refusal) {
			setError(refusal as Error);
		}
		setBusy(false);
	}
	const fetched = (file: ClientFileDto) =>
		answer(
			api.POST("/p/{link}/api/files/{file}/fetched", {
				params: { path: { link, file: file.id } },
			}),
		).catch(() => undefined);
	return (
		<section id="files">
			<h2 className="rule pb-1.5">Files</h2>
			{part.handedOver && (
				<p className="pt-2">
					Handed over on {part.handedOver}
					{part.approved && `, and approved by you on ${part.approved}`}.
				</p>
			)}
			{part.finalsWait && part.final.length > 0 && (
				<p role="status" className="pt-2">
					{part.finalsWait}
				</p>
			)}
			<ul>
				{part.final.map((file) => (
					<Row
						key={file.id}
						file={file}
						waits={part.finalsWait !== ""}
						address={`${files ?? `/p/${link}/api`}/files/${file.id}`}
						onFetch={() => fetched(file)}
					/>
				))}
			</ul>
			{part.final.length > 1 && !part.finalsWait && !files && (
				<p className="pt-3">
					<Button asChild>
						<a
							href={`/p/${link}/api/handed-over.zip`}
							onClick={() =>
								part.final.forEach((file) => {
									fetched(file);
								})
							}
						>
							All {part.final.length} in one file (ZIP)
						</a>
					</Button>
				</p>
			)}
			{part.words && <HandoverWords words={part.words} />}
			{part.handedOver && !files && (
				<p className="pt-1 pb-2">
					<Button asChild kind="word">
						<a href={`/p/${link}/api/handed-over.pdf`}>
							What was handed over, to keep (PDF)
						</a>
					</Button>
				</p>
			)}
			{part.waitsForYes && (
				<div className="mt-3 bg-plaster p-4">
					<p className="pb-3">
						Is all well? A yes closes the work; if something is missing, answer
						any letter of {page.studio.owner}.
					</p>
					<Button
						kind="brand"
						className="py-2.5"
						disabled={busy}
						onClick={() =>
							run(() =>
								answer(
									api.POST("/p/{link}/api/approve", {
										params: { path: { link } },
									}),
								),
							)
						}
					>
						All is well, I approve the work
					</Button>
				</div>
			)}
			<h3 className="pt-5">From you</h3>
			{part.supplied.length === 0 && (
				<p className="pt-1 text-soft">
					Photos, texts or logos for this project can be sent here.
				</p>
			)}
			<ul>
				{part.supplied.map((file) => (
					<Row
						key={file.id}
						file={file}
						address={`${files ?? `/p/${link}/api`}/files/${file.id}`}
					/>
				))}
			</ul>
			{error && <Alert>{error.message}</Alert>}
			<FilePick
				className="mt-3"
				name="A file to send"
				disabled={busy}
				onFiles={([file]) =>
					file &&
					run(() =>
						upload(
							`/p/${link}/api/files?name=${encodeURIComponent(file.name)}`,
							file,
						),
					)
				}
			>
				Send a file
			</FilePick>
			{!files && (
				<AskPart
					part="Files"
					link={link}
					owner={page.studio.owner}
					reload={reload}
				/>
			)}
		</section>
	);
}

function Row({
	file,
	waits,
	address,
	onFetch,
}: {
	file: ClientFileDto;
	/** Whether it cannot be opened yet. */
	waits?: boolean;
	address: string;
	onFetch?: () => void;
}) {
	return (
		<li className="flex gap-3 border-b border-hair py-2.5">
			{file.look === "Picture" && !waits && (
				<img
					src={`${address}/preview`}
					alt=""
					loading="lazy"
					className="h-14 w-20 shrink-0 border border-hair object-cover"
				/>
			)}
			<span className="min-w-0">
				{waits ? (
					<span className="break-words">{file.name}</span>
				) : (
					<Button asChild kind="word" className="break-words">
						<a href={address} onClick={onFetch}>
							{file.name}
						</a>
					</Button>
				)}
				{file.use && <span className="block">{file.use}</span>}
				<span className="under block">{file.about}</span>
				{!waits && (
					<LookAt look={file.look} address={address} name={file.name} />
				)}
			</span>
		</li>
	);
}
