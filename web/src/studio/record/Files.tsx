import { useRef, useState } from "react";
import type { FileGroup, KeptFileDto, RecordDto } from "../../api/schema";
import { Alert, Select } from "../../ui/Fields";
import { post, upload } from "../../ui/http";
import { useUndo } from "../../ui/Undo";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";
import { Block } from "./Block";

const groups: { group: FileGroup; words: string }[] = [
	{ group: "Supplied", words: "Supplied" },
	{ group: "Drafts", words: "Drafts" },
	{ group: "Final", words: "Final" },
];

/** Files in their three groups; each says whether the client sees it. */
export function Files({
	record,
	onKeep,
	onPutUp,
	onHandOver,
}: {
	record: RecordDto;
	onKeep: (files: File[]) => void;
	onPutUp: () => void;
	onHandOver: () => void;
}) {
	const picker = useRef<HTMLInputElement>(null);
	const hasDrafts = record.files.some((file) => file.group === "Drafts");
	return (
		<Block
			title="Files"
			aside={
				<button
					type="button"
					className="link"
					onClick={() => picker.current?.click()}
				>
					Keep a file
				</button>
			}
		>
			<input
				ref={picker}
				type="file"
				multiple
				aria-label="Files to keep"
				className="sr-only"
				tabIndex={-1}
				onChange={(e) => {
					onKeep([...(e.target.files ?? [])]);
					e.target.value = "";
				}}
			/>
			{record.files.length === 0 && (
				<p className="text-[14.3px] text-soft">
					None yet. Drop one anywhere on this page to keep it.
				</p>
			)}
			{groups.map(({ group, words }) => {
				const files = record.files.filter((file) => file.group === group);
				return files.length === 0 ? null : (
					<div key={group} className="pt-1.5">
						<h3 className="text-[12.5px] font-semibold text-soft">{words}</h3>
						<ul>
							{files.map((file) => (
								<Kept
									key={file.id}
									project={record.id}
									file={file}
									seen={record.parts.some(
										(part) =>
											part.since &&
											part.part === (group === "Drafts" ? "Drafts" : "Files"),
									)}
								/>
							))}
						</ul>
					</div>
				);
			})}
			{record.rounds.openWords && (
				<p className="pt-2 text-[14.3px] font-[650]">
					{record.rounds.openWords}
				</p>
			)}
			{(hasDrafts || record.canHandOver) && (
				<div className="flex flex-wrap gap-2 pt-2.5">
					{hasDrafts && !record.rounds.open && (
						<button type="button" className="btn" onClick={onPutUp}>
							Put up for review
						</button>
					)}
					{record.canHandOver && (
						<button type="button" className="btn" onClick={onHandOver}>
							Hand over
						</button>
					)}
				</div>
			)}
		</Block>
	);
}

function Kept({
	project,
	file,
	seen,
}: {
	project: number;
	file: KeptFileDto;
	/** Whether the part of the client page it stands in is open. */
	seen: boolean;
}) {
	const act = useAct();
	const offer = useUndo();
	const address = `/api/projects/${project}/files/${file.id}`;
	const remove = (removed: boolean) =>
		act.run(() => post(`${address}/removed`, { removed }));
	return (
		<li className="flex gap-2.5 py-1 text-[14.3px]">
			<Thumb
				address={file.hasPreview ? `/api/files/${file.id}/preview` : undefined}
				name={file.name}
			/>
			<span className="min-w-0 flex-1">
				<a className="link block truncate" href={`/api/files/${file.id}`}>
					{file.name}
				</a>
				<span className="under block">
					{file.about}
					{file.use && `. ${file.use}`}
				</span>
				<span className="flex gap-3 text-small">
					<button
						type="button"
						className="link"
						disabled={act.busy}
						onClick={() =>
							act.run(() =>
								post(`${address}/shown`, { shown: !file.shown, use: null }),
							)
						}
					>
						{file.shown ? "Hide from the client" : "Show to the client"}
						<span className="sr-only">: {file.name}</span>
					</button>
					<button
						type="button"
						className="link"
						disabled={act.busy}
						onClick={async () => {
							if (await remove(true))
								offer({
									words: `Taken out: ${file.name}`,
									undo: () => remove(false),
								});
						}}
					>
						Take out
						<span className="sr-only">: {file.name}</span>
					</button>
				</span>
				{act.refusal && <Alert>{act.refusal.message}</Alert>}
			</span>
			<span
				className={
					file.shown ? "text-small font-[650]" : "text-small text-soft"
				}
			>
				{!file.shown ? "private" : seen ? "shown" : "shown once its part opens"}
			</span>
		</li>
	);
}

/** A small picture of a picture; for anything else its ending. */
export function Thumb({ address, name }: { address?: string; name: string }) {
	return address ? (
		<img
			src={address}
			alt=""
			loading="lazy"
			className="h-12 w-16 shrink-0 border border-hair object-cover"
		/>
	) : (
		<span className="grid h-12 w-16 shrink-0 place-items-center border border-hair font-head text-small text-soft">
			{name.split(".").at(-1)?.slice(0, 5)}
		</span>
	);
}

/** Asks where dropped or chosen files belong, and keeps them one after another. */
export function KeepFiles({
	record,
	files,
	onClose,
}: {
	record: RecordDto;
	files: File[];
	onClose: () => void;
}) {
	const [group, setGroup] = useState<FileGroup>("Supplied");
	const [phase, setPhase] = useState(
		record.phases.find((one) => one.state === "InWork")?.name ?? "",
	);
	const [kept, setKept] = useState(0);
	const act = useAct();
	async function keep() {
		for (const file of files.slice(kept)) {
			const query = new URLSearchParams({ name: file.name, group });
			if (group === "Drafts" && phase) query.set("phase", phase);
			const done = await act.run(() =>
				upload(`/api/projects/${record.id}/files?${query}`, file),
			);
			if (!done) return;
			setKept((before) => before + 1);
		}
		onClose();
	}
	return (
		<Window
			title={
				files.length === 1 ? "Keep this file" : `Keep ${files.length} files`
			}
			open={files.length > 0}
			onClose={onClose}
		>
			<div className="grid gap-3">
				<ul className="text-[14.3px]">
					{files.map((file) => (
						<li key={file.name} className="truncate">
							{file.name}
						</li>
					))}
				</ul>
				<Select
					label="They are"
					value={group}
					onChange={(e) => setGroup(e.target.value as FileGroup)}
				>
					<option value="Supplied">supplied: photos, texts, logos</option>
					<option value="Drafts">drafts to be looked at</option>
					<option value="Final">final, to be handed over</option>
				</Select>
				{group === "Drafts" && record.phases.length > 0 && (
					<Select
						label="Phase"
						value={phase}
						onChange={(e) => setPhase(e.target.value)}
					>
						<option value="">none</option>
						{record.phases.map((one) => (
							<option key={one.name}>{one.name}</option>
						))}
					</Select>
				)}
				{act.busy && files.length > 1 && (
					<progress
						className="w-full"
						aria-label="Files kept"
						value={kept}
						max={files.length}
					/>
				)}
				{act.refusal && <Alert>{act.refusal.message}</Alert>}
				<button
					type="button"
					className="btn btn-go"
					disabled={act.busy}
					onClick={keep}
				>
					Keep {files.length === 1 ? "the file" : "the files"}
				</button>
			</div>
		</Window>
	);
}
