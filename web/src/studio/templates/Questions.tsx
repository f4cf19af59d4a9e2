import type { FormField } from "../../api/schema";
import { Button } from "../../ui/Button";
import { moved, Sortable, SortableItem } from "../../ui/Sortable";
import { FieldEditor, sortWords } from "./FieldEditor";

/** The questions in their order: dragged by the handle, or moved with space and arrows. */
export function Questions({
	checklist,
	fields,
	open,
	fills,
	wrong,
	onOpen,
	onOrder,
	onChange,
}: {
	/** The owner answers it, and an answer can make a task. */
	checklist: boolean;
	fields: readonly FormField[];
	open?: string;
	fills: readonly string[];
	wrong: (field: string) => string | undefined;
	onOpen: (key?: string) => void;
	onOrder: (fields: FormField[]) => void;
	onChange: (at: number, part: Partial<FormField>) => void;
}) {
	return (
		<Sortable
			label="Questions"
			className="border-t border-hair"
			keys={fields.map((field) => field.key)}
			onMove={(from, to) => onOrder(moved(fields, from, to))}
		>
			{fields.map((field, i) => (
				<SortableItem
					key={field.key}
					id={field.key}
					name={field.label || "the new question"}
					className="border-b border-hair bg-sheet py-1"
				>
					{(handle) => (
						<>
							<div className="flex items-baseline gap-2">
								{handle}
								<Button
									kind="line"
									className="font-[600]"
									aria-expanded={open === field.key}
									onClick={() =>
										onOpen(open === field.key ? undefined : field.key)
									}
								>
									{field.label || "A new question"}
								</Button>
								<span className="under">
									{sortWords[field.sort]}
									{field.required && ", required"}
									{field.fills && `, fills ${field.fills}`}
									{field.makes && `, “${field.makes.answer}” makes a task`}
									{field.shownIf && ", shown only if"}
								</span>
							</div>
							{open === field.key && (
								<FieldEditor
									checklist={checklist}
									field={field}
									above={fields.slice(0, i)}
									fills={fills}
									wrong={(name) => wrong(`fields[${i}].${name}`)}
									onChange={(part) => onChange(i, part)}
									onTakeOut={() => onOrder(fields.filter((_, at) => at !== i))}
								/>
							)}
						</>
					)}
				</SortableItem>
			))}
		</Sortable>
	);
}
