import { lazy, Suspense, useRef } from "react";
import type { ClientFileDto, PinDto, SaidDto } from "../api/schema";
import { Button } from "../ui/Button";
import { FileShown } from "../ui/files/FileShown";
import { LookAt } from "../ui/files/LookAt";
import { Pinned } from "../ui/files/Pinned";

const PagesShown = lazy(() => import("../ui/files/PagesShown"));

/** A draft in its place: a picture or pages with what was said of them, a film, or a file to open. */
export function Draft({
	file,
	said,
	link,
	files,
	past,
	pin,
	onPin,
}: {
	file: ClientFileDto;
	/** What was said of the round, each with its number. */
	said: readonly (SaidDto & { number: number })[];
	link: string;
	files?: string;
	/** That it was answered: its pages open on a press, unless something is marked on them. */
	past?: boolean;
	/** Where the remark being written points. */
	pin?: PinDto;
	/** Absent where nothing can be said of it any more. */
	onPin?: (pin: PinDto | undefined) => void;
}) {
	const address = `${files ?? `/p/${link}/api`}/files/${file.id}`;
	const film = useRef<HTMLVideoElement>(null);
	const mine = pin?.file === file.id ? placeOf(pin) : undefined;
	const pins = said.flatMap((one) =>
		one.pin?.file === file.id
			? [placeOf(one.pin)].flatMap((at) =>
					at ? [{ ...at, number: one.number }] : [],
				)
			: [],
	);
	const inPlace =
		file.look === "Picture" ||
		file.look === "Film" ||
		(file.look === "Pages" && !(past && pins.length === 0));
	const point =
		onPin &&
		((place: { x: number; y: number; page?: number }) =>
			onPin({ file: file.id, ...place }));
	return (
		<figure>
			{file.look === "Picture" && (
				<Pinned name={file.name} pins={pins} next={mine} onPoint={point}>
					<FileShown look="Picture" address={address} name={file.name} />
				</Pinned>
			)}
			{inPlace && file.look === "Pages" && (
				<Suspense fallback={<p className="under">A moment …</p>}>
					<PagesShown
						address={address}
						name={file.name}
						pins={pins}
						next={mine}
						onPoint={point}
						onWhole={onPin && ((page) => onPin({ file: file.id, page }))}
					/>
				</Suspense>
			)}
			{file.look === "Film" && (
				<FileShown look="Film" address={address} name={file.name} film={film} />
			)}
			<figcaption className="flex flex-wrap items-end gap-x-3 gap-y-1 pt-1">
				<Button asChild kind="word">
					<a href={address}>{file.name}</a>
				</Button>
				<span className="text-soft">{file.about}</span>
				{!inPlace && (
					<LookAt look={file.look} address={address} name={file.name} />
				)}
				{onPin && file.look === "Film" && (
					<Button
						onClick={() =>
							onPin({
								file: file.id,
								second: Math.floor(film.current?.currentTime ?? 0),
							})
						}
					>
						Remark on this second
					</Button>
				)}
			</figcaption>
		</figure>
	);
}

/** A place of a picture, which is its only page, or of a page of a document. */
const placeOf = ({ x, y, page }: PinDto) =>
	typeof x === "number" && typeof y === "number"
		? { x, y, page: page ?? 1 }
		: undefined;

/** Where a remark points, in words beside it. */
export const pinWords = (pin: PinDto | null | undefined): string =>
	!pin
		? ""
		: typeof pin.page === "number"
			? typeof pin.x === "number"
				? `the place you marked on page ${pin.page}`
				: `page ${pin.page}`
			: typeof pin.second === "number"
				? `at ${Math.floor(pin.second / 60)}:${String(pin.second % 60).padStart(2, "0")}`
				: "the place you marked";
