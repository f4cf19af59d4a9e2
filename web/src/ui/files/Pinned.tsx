import {
	type KeyboardEvent,
	type MouseEvent,
	type ReactNode,
	useState,
} from "react";

/** A place of a picture or page, in thousandths of its width and height. */
export type Place = { x: number; y: number };

const step = 20;
const within = (value: number) =>
	Math.min(1000, Math.max(0, Math.round(value)));

const moves: Record<string, Place> = {
	ArrowLeft: { x: -step, y: 0 },
	ArrowRight: { x: step, y: 0 },
	ArrowUp: { x: 0, y: -step },
	ArrowDown: { x: 0, y: step },
};

/** A mark at a place, with the number of its remark. */
export type NumberedPlace = Place & { number: number };

/** A picture or page with numbered marks on it; where `onPoint` is given, a press sets the next one, or arrow keys and Enter do. */
export function Pinned({
	name,
	pins,
	next,
	onPoint,
	children,
}: {
	name: string;
	pins: readonly NumberedPlace[];
	/** The one that is being set. */
	next?: Place;
	onPoint?: (place: Place) => void;
	/** What is marked. */
	children: ReactNode;
}) {
	const [aim, setAim] = useState<Place>();
	const press = (event: MouseEvent<HTMLButtonElement>) => {
		// pressed by a key: where the arrows led
		if (event.detail === 0) return onPoint?.(aim ?? { x: 500, y: 500 });
		const box = event.currentTarget.getBoundingClientRect();
		onPoint?.({
			x: within(((event.clientX - box.left) / box.width) * 1000),
			y: within(((event.clientY - box.top) / box.height) * 1000),
		});
	};
	const walk = (event: KeyboardEvent) => {
		const by = moves[event.key];
		if (!by) return;
		event.preventDefault();
		const from = aim ?? { x: 500, y: 500 };
		setAim({ x: within(from.x + by.x), y: within(from.y + by.y) });
	};
	return (
		<div className="relative inline-block max-w-full border border-hair">
			{children}
			{pins.map((pin) => (
				<Mark key={pin.number} place={pin} words={String(pin.number)} />
			))}
			{next && <Mark place={next} words="+" />}
			{aim && onPoint && !next && <Mark place={aim} words="?" />}
			{onPoint && (
				<button
					type="button"
					className="absolute inset-0 cursor-crosshair"
					aria-label={`Point at a place in ${name}: arrow keys lead there, Enter sets it`}
					onClick={press}
					onKeyDown={walk}
					onBlur={() => setAim(undefined)}
				/>
			)}
		</div>
	);
}

function Mark({ place, words }: { place: Place; words: string }) {
	return (
		<span
			aria-hidden
			className="pointer-events-none absolute grid size-6 -translate-x-1/2 -translate-y-1/2 place-items-center rounded-full border-2 border-sheet bg-ink font-head text-[12.5px] font-[650] text-sheet"
			style={{ left: `${place.x / 10}%`, top: `${place.y / 10}%` }}
		>
			{words}
		</span>
	);
}
