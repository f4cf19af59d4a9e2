import {
	closestCenter,
	DndContext,
	KeyboardSensor,
	PointerSensor,
	useSensor,
	useSensors,
} from "@dnd-kit/core";
import {
	arrayMove,
	rectSortingStrategy,
	SortableContext,
	sortableKeyboardCoordinates,
	useSortable,
	verticalListSortingStrategy,
} from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import type { ReactNode } from "react";
import { Button } from "./Button";

/** A list whose order is made by hand: dragged by the handle, or moved with space and arrows. */
export function Sortable({
	label,
	keys,
	className,
	grid,
	onMove,
	children,
}: {
	label: string;
	keys: readonly string[];
	className?: string;
	/** Several beside each other. */
	grid?: boolean;
	/** From one place to another, counted from 0. */
	onMove: (from: number, to: number) => void;
	children: ReactNode;
}) {
	const sensors = useSensors(
		useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
		useSensor(KeyboardSensor, {
			coordinateGetter: sortableKeyboardCoordinates,
		}),
	);
	return (
		<DndContext
			sensors={sensors}
			collisionDetection={closestCenter}
			onDragEnd={({ active, over }) => {
				if (over && active.id !== over.id)
					onMove(
						keys.indexOf(String(active.id)),
						keys.indexOf(String(over.id)),
					);
			}}
		>
			<SortableContext
				items={[...keys]}
				strategy={grid ? rectSortingStrategy : verticalListSortingStrategy}
			>
				<ol aria-label={label} className={className}>
					{children}
				</ol>
			</SortableContext>
		</DndContext>
	);
}

/** One of them, with the handle it is moved by. */
export function SortableItem({
	id,
	name,
	className = "",
	children,
}: {
	id: string;
	/** What is moved, for a screen reader. */
	name: string;
	className?: string;
	children: (handle: ReactNode) => ReactNode;
}) {
	const drag = useSortable({ id });
	const handle = (
		<Button
			kind="word"
			size="small"
			className="cursor-grab touch-none px-1 py-1.5"
			{...drag.attributes}
			{...drag.listeners}
			aria-label={`Move ${name}`}
		>
			move
		</Button>
	);
	return (
		<li
			ref={drag.setNodeRef}
			className={`${className} ${drag.isDragging ? "relative z-10 outline-2 outline-ink" : ""}`}
			style={{
				transform: CSS.Translate.toString(drag.transform),
				transition: drag.transition,
			}}
		>
			{children(handle)}
		</li>
	);
}

/** What was moved stands in its new place. */
export const moved = <T,>(all: readonly T[], from: number, to: number): T[] =>
	arrayMove([...all], from, to);
