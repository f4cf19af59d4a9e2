import mammoth from "mammoth";
import { createElement, type ReactNode, useEffect, useState } from "react";
import { bytes } from "../../api/client";
import { Alert } from "../Alert";

const mostParts = 20_000;

/** The words of a document of an office program (Office Open XML, ECMA-376), with their headings, lists, tables and pictures. */
export default function DocumentShown({ address }: { address: string }) {
	const [shown, setShown] = useState<ReactNode>();
	const [trouble, setTrouble] = useState(false);
	useEffect(() => {
		bytes(address)
			.then((arrayBuffer) =>
				mammoth.convertToHtml(
					{ arrayBuffer },
					{ externalFileAccess: false, includeEmbeddedStyleMap: false },
				),
			)
			.then((made) => setShown(drawn(made.value)))
			.catch(() => setTrouble(true));
	}, [address]);
	if (trouble)
		return (
			<Alert>
				This document cannot be shown here. Fetch it and open it with your own
				program.
			</Alert>
		);
	return (
		<div className="max-h-[75vh] overflow-auto border border-hair p-5 [&_img]:max-w-full [&_ol]:list-decimal [&_ol]:pl-6 [&_p]:pb-2 [&_td]:border [&_td]:border-hair [&_td]:px-2 [&_td]:py-1 [&_td]:align-top [&_ul]:list-disc [&_ul]:pl-6">
			{shown ?? "The document is being opened …"}
		</div>
	);
}

// what a document may bring; anything else is only its words
const kept = new Set(
	"P H1 H2 H3 H4 H5 H6 UL OL LI TABLE THEAD TBODY TR TD TH STRONG EM SUP SUB S BR".split(
		" ",
	),
);
// the page has its own headings above these
const lower: Record<string, string> = { H1: "h3", H2: "h4", H3: "h5" };

/** Made into elements of ours, one by one: nothing of the document's own runs, is fetched, or has a look of its own. */
function drawn(markup: string): ReactNode {
	let left = mostParts;
	const draw = (node: Node, key: number): ReactNode => {
		if (left-- <= 0) return left === -1 ? "… the rest is in the file." : null;
		if (node.nodeType === Node.TEXT_NODE) return node.textContent;
		if (!(node instanceof Element)) return null;
		const inner = [...node.childNodes].map(draw);
		const name = node.tagName;
		if (name === "IMG") return <Picture key={key} of={node} />;
		if (!kept.has(name)) return <span key={key}>{inner}</span>;
		const as = lower[name] ?? name.toLowerCase();
		const spans =
			name === "TD" || name === "TH"
				? {
						colSpan: Number(node.getAttribute("colspan") ?? 1),
						rowSpan: Number(node.getAttribute("rowspan") ?? 1),
					}
				: {};
		return createElement(as, { key, ...spans }, ...inner);
	};
	const body = new DOMParser().parseFromString(markup, "text/html").body;
	return [...body.childNodes].map(draw);
}

function Picture({ of }: { of: Element }) {
	const source = of.getAttribute("src") ?? "";
	return /^data:image\/(png|jpeg|gif|webp);base64,/.test(source) ? (
		<img src={source} alt={of.getAttribute("alt") ?? ""} />
	) : null;
}
