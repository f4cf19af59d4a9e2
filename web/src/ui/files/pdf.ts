// the build that also runs on browsers some years old; it is fetched when the first document is shown
import {
	GlobalWorkerOptions,
	getDocument,
	PasswordResponses,
	type PDFDocumentProxy,
	PDFWorker,
	type RenderTask,
	VerbosityLevel,
} from "pdfjs-dist/legacy/build/pdf.mjs";
import worker from "pdfjs-dist/legacy/build/pdf.worker.min.mjs?url";

/** Where its character maps, standard fonts and decoders lie; put there by the build. */
declare const __PDF_PARTS__: string;

GlobalWorkerOptions.workerSrc = worker;

/** No more than this is drawn, whatever a page says of itself; in device pixels. */
const most = { width: 2000, height: 8000 };
const mostWords = 20_000;

let shared: PDFWorker | undefined;
/** One for all documents of the page. */
const reader = () =>
	(shared ??= new PDFWorker({ verbosity: VerbosityLevel.ERRORS }));

/** A document that was opened. */
export type Pages = {
	count: number;
	/** Draws a page, from 1, and tells its words. */
	draw: (
		number: number,
		on: HTMLCanvasElement,
	) => { words: Promise<string>; end: () => void };
};

/** Opens a document (PDF, ISO 32000) at an address; it is read in parts where the server gives them. */
export function readPages(address: string): {
	pages: Promise<Pages>;
	end: () => void;
} {
	const loading = getDocument({
		worker: reader(),
		url: new URL(address, location.href).href,
		rangeChunkSize: 2 ** 20,
		disableAutoFetch: true,
		cMapUrl: `${__PDF_PARTS__}cmaps/`,
		standardFontDataUrl: `${__PDF_PARTS__}standard_fonts/`,
		wasmUrl: `${__PDF_PARTS__}wasm/`,
		iccUrl: `${__PDF_PARTS__}iccs/`,
		isEvalSupported: false,
		enableXfa: false,
		// what is wrong with a file is told to whoever looks at it, in its place
		verbosity: VerbosityLevel.ERRORS,
		maxImageSize: 64 * 2 ** 20,
	});
	let asked = false;
	loading.onPassword = (_: unknown, reason: number) => {
		asked = reason === PasswordResponses.NEED_PASSWORD;
		loading.destroy();
	};
	return {
		pages: loading.promise.then(opened, () => {
			throw new Error(
				asked
					? "This document asks for a password. Fetch it and open it with your own program."
					: "This document cannot be shown here. Fetch it and open it with your own program.",
			);
		}),
		end: () => {
			loading.destroy();
		},
	};
}

const opened = (document: PDFDocumentProxy): Pages => ({
	count: document.numPages,
	draw(number, canvas) {
		let [ended, task]: [boolean, RenderTask | undefined] = [false, undefined];
		async function draw() {
			const page = await document.getPage(number);
			if (ended) return "";
			const plain = page.getViewport({ scale: 1 });
			const room = canvas.parentElement?.parentElement?.clientWidth || 800;
			const width = Math.min(most.width, room * Math.min(2, devicePixelRatio));
			const scale = Math.min(width / plain.width, most.height / plain.height);
			const viewport = page.getViewport({ scale });
			[canvas.width, canvas.height] = [
				Math.ceil(viewport.width),
				Math.ceil(viewport.height),
			];
			canvas.style.aspectRatio = `${canvas.width} / ${canvas.height}`;
			task = page.render({ canvas, viewport });
			await task.promise;
			const { items } = await page.getTextContent();
			return items
				.map((item) => ("str" in item ? item.str : ""))
				.join(" ")
				.slice(0, mostWords);
		}
		return {
			words: draw().catch((error: Error) => {
				if (ended || error.name === "RenderingCancelledException") return "";
				throw error;
			}),
			end: () => {
				ended = true;
				task?.cancel();
			},
		};
	},
});
