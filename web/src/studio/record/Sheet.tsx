import { useEffect, useRef } from "react";
import type { RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Folding } from "./Block";
import { Guides } from "./Brief";
import { type Part, partsOf } from "./sheetParts";
import { useOpenedParts } from "./useOpenedParts";

/** What a part of the sheet can begin. */
export type SheetActs = {
	onKeep: (files: File[]) => void;
	onWrite: (what: string) => void;
	onOpen: (what: string) => void;
};

/** The standing details beside the line: what the present gate needs stands open, everything else is one line. */
export function Sheet({
	record,
	asked,
	...acts
}: { record: RecordDto; asked: string | null } & SheetActs) {
	const opened = useOpenedParts(record.id);
	const sheet = useRef<HTMLDivElement>(null);
	// a part that was asked for by its name, by a hit of the search, is opened and brought into sight
	// once for each part asked for: it may be folded again
	useEffect(() => {
		if (asked && parts.some((part) => part.title === asked))
			opened.set(asked, true);
	}, [asked]);
	const parts = partsOf(record, acts);
	const isOpen = (part: Part) => opened.isOpen(part.title, part.open);
	const shown = parts.find((part) => part.title === asked && isOpen(part));
	useEffect(() => {
		const all = sheet.current?.querySelectorAll("section[aria-label]") ?? [];
		[...all]
			.find((one) => one.ariaLabel === shown?.title)
			?.scrollIntoView({ block: "nearest" });
	}, [shown?.title]);
	// a part changes its place as it is opened or folded, and whoever did that goes with it
	const turned = useRef<string>(undefined);
	const turn = (part: string, open: boolean) => {
		turned.current = part;
		opened.set(part, open);
	};
	useEffect(() => {
		const part = turned.current;
		turned.current = undefined;
		if (!part) return;
		const at = [
			...(sheet.current?.querySelectorAll<HTMLElement>("[data-part]") ?? []),
		].find((one) => one.dataset.part === part);
		(at?.querySelector<HTMLElement>("h2 button") ?? at)?.focus();
	});
	const folded = parts.filter((part) => !isOpen(part));
	const empty = folded.filter((part) => part.empty);
	return (
		<div ref={sheet} className="panel px-4 py-0.5">
			<Guides brief={record.about.brief} />
			{parts.filter(isOpen).map((part) => (
				<Folding
					key={part.title}
					value={{ part: part.title, fold: () => turn(part.title, false) }}
				>
					{part.show()}
				</Folding>
			))}
			{folded
				.filter((part) => !part.empty)
				.map((part) => (
					<Button
						key={part.title}
						kind="line"
						data-part={part.title}
						aria-expanded={false}
						className="grid w-full grid-cols-[104px_1fr] gap-x-2 border-b border-hair py-[7px] hover:bg-plaster"
						onClick={() => turn(part.title, true)}
					>
						<b className="font-head text-[14.5px] font-[650]">{part.title}</b>
						<span className="truncate text-[14.3px] text-soft">
							{part.line}
						</span>
					</Button>
				))}
			{empty.length > 0 && (
				<p className="flex flex-wrap gap-x-3 gap-y-2 py-[7px] text-small text-soft">
					<span>Begin one:</span>
					{empty.map((part) => (
						<Button
							key={part.title}
							kind="word"
							data-part={part.title}
							aria-expanded={false}
							onClick={() => turn(part.title, true)}
						>
							{part.title}
						</Button>
					))}
				</p>
			)}
		</div>
	);
}
