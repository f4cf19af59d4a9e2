import {
	DndContext,
	DragOverlay,
	PointerSensor,
	pointerWithin,
	useDraggable,
	useDroppable,
	useSensor,
	useSensors,
} from "@dnd-kit/core";
import { type ReactNode, useState } from "react";
import type { PlannedTaskDto } from "../../api/schema";
import { useTaskDay } from "./useTaskDay";

/** Tasks inside it are dragged from day to day; by keys they are moved otherwise. */
export function Draggable({ children }: { children: ReactNode }) {
	const [task, setTask] = useState<PlannedTaskDto>();
	const put = useTaskDay();
	const sensors = useSensors(
		useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
	);
	return (
		<DndContext
			sensors={sensors}
			collisionDetection={pointerWithin}
			accessibility={{
				// nothing is dragged by keys: the screen reader is told by what is moved
				screenReaderInstructions: { draggable: "" },
				announcements: {
					onDragStart: () => undefined,
					onDragOver: () => undefined,
					onDragEnd: () => undefined,
					onDragCancel: () => undefined,
				},
			}}
			onDragStart={({ active }) =>
				setTask(active.data.current as PlannedTaskDto)
			}
			onDragCancel={() => setTask(undefined)}
			onDragEnd={({ over }) => {
				setTask(undefined);
				if (!task || !over) return;
				const day = (over.data.current?.day as string | null) ?? null;
				if (day !== (task.day ?? null))
					void put(
						{ id: task.id, project: task.project, title: task.title },
						task.day ?? null,
						day,
					);
			}}
		>
			{children}
			<DragOverlay dropAnimation={null}>
				{task && (
					<div className="cursor-grabbing border-[1.5px] border-ink bg-sheet px-2 py-1">
						{task.title}{" "}
						<span className="num text-[12.3px] text-soft">{task.estimate}</span>
					</div>
				)}
			</DragOverlay>
		</DndContext>
	);
}

/** What makes an element the handle of a task. */
export function useDragged(task: PlannedTaskDto) {
	const drag = useDraggable({
		id: `${task.id}`,
		data: task,
		disabled: task.marks.done,
	});
	return { ref: drag.setNodeRef, ...drag.listeners };
}

/** A day of a project: what is dropped here is worked on that day. */
export function DayCell({
	day,
	row,
	className,
	children,
}: {
	day: string;
	row: number;
	className: string;
	children: ReactNode;
}) {
	const drop = useDroppable({ id: `${day} ${row}`, data: { day } });
	return (
		<td
			ref={drop.setNodeRef}
			className={`${className} ${drop.isOver ? "outline-2 -outline-offset-2 outline-ink" : ""}`}
		>
			{children}
		</td>
	);
}

/** Beside the days: what is dropped here has no day. */
export function NoDay({ children }: { children: ReactNode }) {
	const drop = useDroppable({ id: "none", data: { day: null } });
	return (
		<div
			ref={drop.setNodeRef}
			className={drop.isOver ? "outline-2 outline-ink" : ""}
		>
			{children}
		</div>
	);
}
