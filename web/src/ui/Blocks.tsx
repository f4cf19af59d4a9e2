import type { ReactNode } from "react";
import type { TextBlock, TextRun } from "../api/schema";

type Lines = readonly TextBlock[];

/** A text as its blocks were read from what was written: headings, paragraphs, lists; the same ones as on paper. */
export function Blocks({ of, top = 3 }: { of: Lines; top?: 2 | 3 }) {
	return grouped(of).map((group, i) =>
		group[0]?.sort === "Item" ? (
			<List key={i} items={group} />
		) : (
			<Block key={i} block={group[0]!} top={top} />
		),
	);
}

function Block({ block, top }: { block: TextBlock; top: 2 | 3 }) {
	const words = <Runs of={block.runs} />;
	switch (block.sort) {
		case "Heading": {
			const Heading = top === 2 ? "h2" : "h3";
			return (
				<Heading className="pt-3 pb-1">
					{block.number && <span className="num pr-2">{block.number}</span>}
					{words}
				</Heading>
			);
		}
		case "Rule":
			return <hr className="my-3 border-hair" />;
		case "Quote":
			return (
				<blockquote className="my-2 border-l-2 border-hair pl-3 whitespace-pre-line">
					{words}
				</blockquote>
			);
		default:
			return block.number ? (
				<p className="grid grid-cols-[2.6em_1fr] pb-2.5 whitespace-pre-line">
					<span className="num text-soft">{block.number}</span>
					<span>{words}</span>
				</p>
			) : (
				<p className="pb-2.5 whitespace-pre-line">{words}</p>
			);
	}
}

function List({ items }: { items: Lines }) {
	const ordered = items[0]?.number !== null;
	const Tag = ordered ? "ol" : "ul";
	return (
		<Tag className="pb-2.5">
			{items.map((item, i) => (
				<li
					key={i}
					className="grid grid-cols-[1.6em_1fr] py-0.5 whitespace-pre-line"
					style={{ marginLeft: `${(item.level - 1) * 1.6}em` }}
				>
					<span className="num text-soft" aria-hidden="true">
						{item.number ?? "–"}
					</span>
					<span>
						<Runs of={item.runs} />
					</span>
				</li>
			))}
		</Tag>
	);
}

function Runs({ of }: { of: readonly TextRun[] }) {
	return of.map((run, i) => {
		let words: ReactNode = run.text;
		if (run.slanted) words = <em>{words}</em>;
		if (run.strong) words = <strong className="font-[650]">{words}</strong>;
		return run.link ? (
			<a key={i} href={run.link} className="link" rel="noreferrer noopener">
				{words}
			</a>
		) : (
			<span key={i}>{words}</span>
		);
	});
}

/** Items of one list together, everything else by itself. */
function grouped(blocks: Lines): TextBlock[][] {
	const groups: TextBlock[][] = [];
	for (const block of blocks) {
		const last = groups.at(-1);
		const first = last?.[0];
		if (
			block.sort === "Item" &&
			first?.sort === "Item" &&
			(block.level > 1 || (first.number === null) === (block.number === null))
		)
			last!.push(block);
		else groups.push([block]);
	}
	return groups;
}
