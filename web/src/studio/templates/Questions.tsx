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
	SortableContext,
	sortableKeyboardCoordinates,
	useSortable,
	verticalListSortingStrategy,
} from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import type { ReactNode } from "react";
import type { FormField } from "../../api/schema";
import { Button } from "../../ui/Button";
import { FieldEditor, sortWords } from "./FieldEditor";

/** The questions in their order: dragged by the handle, or moved with space and arrows. */
export function Questions({
	fields,
	open,
	fills,
	wrong,
	onOpen,
	onOrder,
	onChange,
}: {
	fields: readonly FormField[];
	open?: string;
	fills: readonly string[];
	wrong: (field: string) => string | undefined;
	onOpen: (key?: string) => void;
	onOrder: (fields: FormField[]) => void;
	onChange: (at: number, part: Partial<FormField>) => void;
}) {
	const sensors = useSensors(
		useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
		useSensor(KeyboardSensor, {
			coordinateGetter: sortableKeyboardCoordinates,
		}),
	);
	const keys = fields.map((field) => field.key);
	return (
		<DndContext
			sensors={sensors}
			collisionDetection={closestCenter}
			onDragEnd={({ active, over }) => {
				if (over && active.id !== over.id)
					onOrder(
						arrayMove(
							[...fields],
							keys.indexOf(String(active.id)),
							keys.indexOf(String(over.id)),
						),
					);
			}}
		>
			<SortableContext items={keys} strategy={verticalListSortingStrategy}>
				<ol aria-label="Questions" className="border-t border-hair">
					{fields.map((field, i) => (
						<Question
							key={field.key}
							field={field}
							open={open === field.key}
							onOpen={() => onOpen(open === field.key ? undefined : field.key)}
						>
							<FieldEditor
								field={field}
								above={fields.slice(0, i)}
								fills={fills}
								wrong={(name) => wrong(`fields[${i}].${name}`)}
								onChange={(part) => onChange(i, part)}
								onTakeOut={() => onOrder(fields.filter((_, at) => at !== i))}
							/>
						</Question>
					))}
				</ol>
			</SortableContext>
		</DndContext>
	);
}

function Question({
	field,
	open,
	onOpen,
	children,
}: {
	field: FormField;
	open: boolean;
	onOpen: () => void;
	children: ReactNode;
}) {
	const drag = useSortable({ id: field.key });
	return (
		<li
			ref={drag.setNodeRef}
			className={`border-b border-hair bg-sheet py-1 ${drag.isDragging ? "relative z-10 outline-2 outline-ink" : ""}`}
			style={{
				transform: CSS.Translate.toString(drag.transform),
				transition: drag.transition,
			}}
		>
			<div className="flex items-baseline gap-2">
				<Button
					className="cursor-grab touch-none px-2"
					{...drag.attributes}
					{...drag.listeners}
					aria-label={`Move ${field.label || "the new question"}`}
				>
					move
				</Button>
				<Button
					kind="line"
					className="font-[600]"
					aria-expanded={open}
					onClick={onOpen}
				>
					{field.label || "A new question"}
				</Button>
				<span className="under">
					{sortWords[field.sort]}
					{field.required && ", required"}
					{field.fills && `, fills ${field.fills}`}
					{field.shownIf && ", shown only if"}
				</span>
			</div>
			{open && children}
		</li>
	);
}
