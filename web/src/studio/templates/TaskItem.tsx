import type { ListItemDto, SpanUnit } from "../../api/schema";
import { Button } from "../../ui/Button";
import { CountField } from "../../ui/CountField";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";
import { FulfilmentSelect } from "../FulfilmentSelect";
import { units } from "./stepWords";
import { TaskItemMore } from "./TaskItemMore";

export function Item({
	item,
	number,
	wrong,
	onChange,
	onTakeOut,
	onUp,
}: {
	item: ListItemDto;
	number: number;
	wrong: (field: string) => string | undefined;
	onChange: (part: Partial<ListItemDto>) => void;
	onTakeOut: () => void;
	onUp?: () => void;
}) {
	const before = item.count < 0;
	const size = Math.abs(item.count);
	return (
		<li className="grid items-end gap-2 md:grid-cols-[1fr_84px_130px_176px_190px_84px]">
			<TextField
				label={`Task ${number}`}
				value={item.title}
				wrong={wrong("title")}
				onChange={(e) => onChange({ title: e.target.value })}
			/>
			<CountField
				label="How long"
				min={0}
				value={size}
				wrong={wrong("count")}
				onChange={(count) =>
					onChange({ count: (before ? -1 : 1) * (count ?? 0) })
				}
			/>
			<Select
				label="Counted in"
				value={item.unit}
				wrong={wrong("unit")}
				onChange={(e) => onChange({ unit: e.target.value as SpanUnit })}
			>
				{Object.entries(units)
					.filter(([unit]) => unit !== "Minutes" && unit !== "Hours")
					.map(([unit, words]) => (
						<option key={unit} value={unit}>
							{words}
						</option>
					))}
			</Select>
			<Select
				label="Of the date that matters"
				value={before ? "before" : "after"}
				onChange={(e) =>
					onChange({ count: (e.target.value === "before" ? -1 : 1) * size })
				}
			>
				<option value="before">before</option>
				<option value="after">after</option>
			</Select>
			<FulfilmentSelect
				value={item.doneBy ?? null}
				onChange={(doneBy) => onChange({ doneBy })}
			/>
			<span className="flex justify-end gap-3 pb-1.5 text-small">
				{onUp && (
					<Button kind="word" onClick={onUp}>
						up<span className="sr-only">: {item.title}</span>
					</Button>
				)}
				<Button kind="word" onClick={onTakeOut}>
					take out<span className="sr-only">: {item.title}</span>
				</Button>
			</span>
			<TaskItemMore
				item={item}
				number={number}
				wrong={wrong}
				onChange={onChange}
			/>
		</li>
	);
}
