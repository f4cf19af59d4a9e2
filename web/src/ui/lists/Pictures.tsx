import { lazy, type ReactNode, Suspense, useState } from "react";
import type { Refusal } from "../../api/refusal";
import type { ListDto, ListEntryDto } from "../../api/schema";
import { Button } from "../Button";
import { FilePick } from "../FilePick";
import { Refused } from "../Refused";
import { TextArea } from "../TextArea";
import { Window } from "../Window";
import { type ListActs, nameOf } from "./acts";

// the owner's alone: a client never fetches it
const InOrder = lazy(() => import("./InOrder"));

/** The pictures of a mood board in their order; what is struck out stays in its place, paler. */
export function Pictures({
	list,
	base,
	acts,
}: {
	list: ListDto;
	/** Where its pictures are fetched. */
	base: string;
	/** Left out where it is only looked at. */
	acts?: ListActs;
}) {
	const [refusal, setRefusal] = useState<Refusal>();
	const [adding, setAdding] = useState(false);
	const edits = acts && list.edits ? acts : undefined;
	const order = edits?.order;
	async function run(what: () => Promise<unknown>) {
		try {
			await what();
			setRefusal(undefined);
		} catch (refused) {
			setRefusal(refused as Refusal);
		}
	}
	const add = edits?.addPictures;
	async function put(files: File[]) {
		if (!add || files.length === 0) return;
		setAdding(true);
		await run(() => add(files));
		setAdding(false);
	}
	const picture = (entry: ListEntryDto, handle?: ReactNode) => (
		<Picture
			entry={entry}
			address={`${base}/${entry.key}`}
			acts={edits}
			handle={handle}
			run={run}
		/>
	);
	return (
		<section
			aria-label={`Pictures of ${list.name}`}
			onDragOver={(e) =>
				add && e.dataTransfer.types.includes("Files") && e.preventDefault()
			}
			onDrop={(e) => {
				if (!add || e.dataTransfer.files.length === 0) return;
				e.preventDefault();
				e.stopPropagation();
				put([...e.dataTransfer.files]);
			}}
			className="grid gap-3"
		>
			{add && (
				<div className="flex flex-wrap items-center gap-3">
					<FilePick accept="image/*" multiple disabled={adding} onFiles={put}>
						Add pictures
					</FilePick>
					<span className="text-soft" role="status">
						{adding ? (
							"One moment"
						) : (
							<span className="max-md:hidden">or drop them here</span>
						)}
					</span>
				</div>
			)}
			<Refused of={refusal} />
			{list.entries.length === 0 && (
				<p className="text-soft">No picture is on it yet.</p>
			)}
			{order ? (
				<Suspense fallback={null}>
					<InOrder
						list={list}
						className={columns}
						onOrder={(keys) => run(() => order(keys))}
						picture={picture}
					/>
				</Suspense>
			) : (
				<ol aria-label={list.name} className={columns}>
					{list.entries.map((entry) => (
						<li key={entry.key}>{picture(entry)}</li>
					))}
				</ol>
			)}
		</section>
	);
}

const columns =
	"grid grid-cols-[repeat(auto-fill,minmax(min(100%,220px),1fr))] gap-x-4 gap-y-5";

function Picture({
	entry,
	address,
	acts,
	handle,
	run,
}: {
	entry: ListEntryDto;
	address: string;
	acts?: ListActs;
	handle?: ReactNode;
	run: (what: () => Promise<unknown>) => Promise<void>;
}) {
	const [large, setLarge] = useState(false);
	const [words, setWords] = useState<string>();
	const cell = entry.cells[0];
	const name = nameOf(entry);
	return (
		<figure className="min-w-0">
			<button
				type="button"
				className={`relative block w-full border border-hair ${entry.struck ? "struck" : ""}`}
				onClick={() => setLarge(true)}
			>
				<img
					src={`${address}/preview`}
					alt={`${name}${entry.struck ? ", struck out" : ""}`}
					loading="lazy"
					className={`aspect-[4/3] w-full bg-plaster object-cover ${entry.struck ? "opacity-35" : ""}`}
				/>
			</button>
			<figcaption className="pt-1 text-[14.3px]">
				{words === undefined ? (
					cell?.words && (
						<p className="break-words whitespace-pre-line">{cell.words}</p>
					)
				) : (
					<form
						className="grid gap-2"
						onSubmit={async (event) => {
							event.preventDefault();
							await run(async () => {
								await acts?.save(entry.key, entry.edition, { words });
								setWords(undefined);
							});
						}}
					>
						<TextArea
							label={`Words on ${name}`}
							rows={2}
							autoFocus
							value={words}
							onChange={(e) => setWords(e.target.value)}
						/>
						<div className="flex flex-wrap gap-2">
							<Button kind="go" type="submit">
								Keep it
							</Button>
							<Button onClick={() => setWords(undefined)}>Never mind</Button>
						</div>
					</form>
				)}
				{entry.mark && <p className="font-[650]">{entry.mark}</p>}
				{acts && words === undefined && (
					<p className="flex flex-wrap gap-x-3 gap-y-1 pt-1 text-small">
						<Button kind="word" onClick={() => setWords(cell?.text ?? "")}>
							{cell?.words ? "Change words" : "Add words"}
							<span className="sr-only">: {name}</span>
						</Button>
						<Button
							kind="word"
							onClick={() => run(() => acts.strike(entry, !entry.struck))}
						>
							{entry.struck ? "Put it back" : "Strike it out"}
							<span className="sr-only">: {name}</span>
						</Button>
						{acts.takeOut && (
							<Button
								kind="word"
								onClick={() =>
									run(() => acts.takeOut?.(entry) ?? Promise.resolve())
								}
							>
								Take it out<span className="sr-only">: {name}</span>
							</Button>
						)}
						{handle}
					</p>
				)}
			</figcaption>
			<Window title={name} open={large} wide onClose={() => setLarge(false)}>
				<img src={`${address}/preview`} alt={name} className="max-w-full" />
				<p className="pt-2">
					<Button asChild kind="word">
						<a href={address}>Fetch the whole picture</a>
					</Button>
				</p>
			</Window>
		</figure>
	);
}
