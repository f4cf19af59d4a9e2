import { useRef } from "react";
import type { ClientFileDto, PinDto, SaidDto } from "../api/schema";
import { Button } from "../ui/Button";
import { CountField } from "../ui/CountField";
import { PinnedPicture } from "../ui/PinnedPicture";

/** A draft in its place: a picture with what was said of it, a film, or a file to open. */
export function Draft({
	file,
	said,
	link,
	files,
	pin,
	onPin,
}: {
	file: ClientFileDto;
	/** What was said of the round, each with its number. */
	said: readonly (SaidDto & { number: number })[];
	link: string;
	files?: string;
	/** Where the remark being written points. */
	pin?: PinDto;
	/** Absent where nothing can be said of it any more. */
	onPin?: (pin: PinDto | undefined) => void;
}) {
	const address = `${files ?? `/p/${link}/api`}/files/${file.id}`;
	const film = useRef<HTMLVideoElement>(null);
	const mine = pin?.file === file.id ? pin : undefined;
	return (
		<figure>
			{file.hasPreview && (
				<PinnedPicture
					address={`${address}/preview`}
					name={file.name}
					pins={said.flatMap((one) =>
						one.pin?.file === file.id && typeof one.pin.x === "number"
							? [{ x: one.pin.x, y: one.pin.y ?? 0, number: one.number }]
							: [],
					)}
					next={
						mine && typeof mine.x === "number"
							? { x: mine.x, y: mine.y ?? 0 }
							: undefined
					}
					onPoint={onPin && ((place) => onPin({ file: file.id, ...place }))}
				/>
			)}
			{file.film && (
				// biome-ignore lint/a11y/useMediaCaption: a draft comes as its maker kept it
				<video
					ref={film}
					controls
					preload="metadata"
					src={address}
					className="max-h-[70vh] w-full border border-hair bg-ink"
				/>
			)}
			<figcaption className="flex flex-wrap items-end gap-x-3 gap-y-1 pt-1">
				<Button asChild kind="word">
					<a href={address}>{file.name}</a>
				</Button>
				<span className="text-soft">{file.about}</span>
				{onPin && file.film && (
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
				{onPin && file.pages && (
					<CountField
						label={`Page of ${file.name} that you mean`}
						min={1}
						max={5000}
						value={mine?.page ?? null}
						onChange={(page) =>
							onPin(page === null ? undefined : { file: file.id, page })
						}
					/>
				)}
			</figcaption>
		</figure>
	);
}

/** Where a remark points, in words beside it. */
export const pinWords = (pin: PinDto | null | undefined): string =>
	!pin
		? ""
		: typeof pin.page === "number"
			? `page ${pin.page}`
			: typeof pin.second === "number"
				? `at ${Math.floor(pin.second / 60)}:${String(pin.second % 60).padStart(2, "0")}`
				: "the place you marked";
