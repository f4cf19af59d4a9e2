import { useEffect, useRef, useState } from "react";
import { Alert } from "../Alert";
import { Button } from "../Button";
import { type NumberedPlace, Pinned, type Place } from "./Pinned";
import { type Pages, readPages } from "./pdf";

/** A mark on a page, from 1. */
export type PagePlace = Place & { page: number };

type OnPage = NumberedPlace & { page: number };

/** A document (PDF) page by page, with the marks of what was said of each. It begins where the first mark is. */
export default function PagesShown({
	address,
	name,
	pins = [],
	next,
	onPoint,
	onWhole,
}: {
	address: string;
	name: string;
	pins?: readonly OnPage[];
	/** The mark that is being set. */
	next?: PagePlace;
	onPoint?: (place: PagePlace) => void;
	/** Where something can be said of a page as a whole. */
	onWhole?: (page: number) => void;
}) {
	const [pages, setPages] = useState<Pages>();
	const [trouble, setTrouble] = useState("");
	const [chosen, setChosen] = useState(() =>
		pins.length > 0 ? Math.min(...pins.map((pin) => pin.page)) : 1,
	);
	useEffect(() => {
		const reading = readPages(address);
		reading.pages.then(setPages, (error: Error) => setTrouble(error.message));
		return reading.end;
	}, [address]);
	if (trouble) return <Alert>{trouble}</Alert>;
	if (!pages) return <p className="under">The pages are being opened …</p>;
	const number = Math.min(chosen, pages.count);
	const marked = [...new Set(pins.map((pin) => pin.page))].filter(
		(page) => page <= pages.count,
	);
	return (
		<div className="grid gap-1.5">
			{(pages.count > 1 || onWhole) && (
				<div className="sticky top-0 z-[1] flex w-full flex-wrap items-center gap-2 bg-sheet py-1">
					<Button disabled={number === 1} onClick={() => setChosen(number - 1)}>
						Page before
					</Button>
					<span className="num" role="status">
						Page {number} of {pages.count}
					</span>
					<Button
						disabled={number === pages.count}
						onClick={() => setChosen(number + 1)}
					>
						Page after
					</Button>
					{onWhole && (
						<Button onClick={() => onWhole(number)}>
							Remark on this page as a whole
						</Button>
					)}
				</div>
			)}
			{marked.length > 0 && pages.count > 1 && (
				<p className="flex flex-wrap gap-x-3">
					<span className="text-soft">Remarks on</span>
					{marked
						.toSorted((a, b) => a - b)
						.map((page) => (
							<Button kind="word" key={page} onClick={() => setChosen(page)}>
								page {page}
							</Button>
						))}
				</p>
			)}
			<Pinned
				name={`page ${number} of ${name}`}
				pins={pins.filter((pin) => pin.page === number)}
				next={next?.page === number ? next : undefined}
				onPoint={onPoint && ((place) => onPoint({ ...place, page: number }))}
			>
				<Page pages={pages} number={number} name={name} />
			</Pinned>
		</div>
	);
}

/** One page, as wide as there is room, with its words for those who hear it. */
function Page({
	pages,
	number,
	name,
}: {
	pages: Pages;
	number: number;
	name: string;
}) {
	const canvas = useRef<HTMLCanvasElement>(null);
	const [words, setWords] = useState("");
	const [trouble, setTrouble] = useState(false);
	useEffect(() => {
		if (!canvas.current) return;
		setTrouble(false);
		const drawing = pages.draw(number, canvas.current);
		drawing.words.then(setWords, () => setTrouble(true));
		return drawing.end;
	}, [pages, number]);
	return (
		<>
			<canvas
				ref={canvas}
				role="img"
				aria-label={`Page ${number} of ${name}`}
				className="block w-full bg-white"
			/>
			<p className="sr-only">{words}</p>
			{trouble && (
				<Alert>This page cannot be shown. Fetch the file to see it.</Alert>
			)}
		</>
	);
}
