import { lazy, type Ref, Suspense } from "react";
import type { FileLook } from "../../api/schema";

const PagesShown = lazy(() => import("./PagesShown"));
const DocumentShown = lazy(() => import("./DocumentShown"));
const SheetsShown = lazy(() => import("./SheetsShown"));
const TextShown = lazy(() => import("./TextShown"));

/** A file in the page's own place, by what it is; what shows it is fetched when it is first needed. */
export function FileShown({
	look,
	address,
	name,
	film,
}: {
	look: FileLook;
	address: string;
	name: string;
	/** Where a film stands. */
	film?: Ref<HTMLVideoElement>;
}) {
	return (
		<Suspense fallback={<p className="under">A moment …</p>}>
			{look === "Picture" && (
				<img
					src={`${address}/preview`}
					alt={`Preview of ${name}`}
					className="block max-h-[70vh] max-w-full"
				/>
			)}
			{look === "Film" && (
				// biome-ignore lint/a11y/useMediaCaption: a film comes as its maker kept it
				<video
					ref={film}
					controls
					preload="metadata"
					src={address}
					className="max-h-[70vh] w-full border border-hair bg-ink"
				/>
			)}
			{look === "Sound" && (
				// biome-ignore lint/a11y/useMediaCaption: a recording comes as its maker kept it
				<audio controls preload="metadata" src={address} className="w-full" />
			)}
			{look === "Pages" && <PagesShown address={address} name={name} />}
			{look === "Document" && <DocumentShown address={address} />}
			{look === "Sheets" && <SheetsShown address={address} />}
			{look === "Text" && <TextShown address={address} />}
		</Suspense>
	);
}
