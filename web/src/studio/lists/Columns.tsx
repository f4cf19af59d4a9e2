import { type FormEvent, useState } from "react";
import { answer, api, newKey } from "../../api/client";
import type { ColumnSort, ListColumnDto, OwnListDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { moved, Sortable, SortableItem } from "../../ui/Sortable";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";
import { columnWords } from "./words";

/** The columns of a list: what each is called and what it holds. */
export function Columns({
	own,
	onClose,
}: {
	own: OwnListDto;
	onClose: () => void;
}) {
	const [columns, setColumns] = useState<ListColumnDto[]>([
		...own.list.columns,
	]);
	const act = useAct();
	const keep = (event: FormEvent) => {
		event.preventDefault();
		act.run(async () => {
			await answer(
				api.PUT("/api/lists/{list}", {
					params: { path: { list: own.list.id } },
					body: {
						edition: own.edition,
						name: own.list.name,
						reader: own.reader,
						columns,
					},
				}),
			);
			onClose();
		});
	};
	return (
		<Window title={`Columns of ${own.list.name}`} open wide onClose={onClose}>
			<form onSubmit={keep} className="grid gap-3">
				<Sortable
					label="Columns"
					keys={columns.map((one) => one.key)}
					onMove={(from, to) => setColumns(moved(columns, from, to))}
				>
					{columns.map((column, at) => (
						<SortableItem
							key={column.key}
							id={column.key}
							name={column.name || "new column"}
							className="border-b border-hair bg-sheet py-2"
						>
							{(handle) => (
								<Column
									column={column}
									wrong={(field) => act.refusal?.of(`columns[${at}].${field}`)}
									onChange={(part) =>
										setColumns(
											columns.map((one) =>
												one === column ? { ...one, ...part } : one,
											),
										)
									}
								>
									{handle}
									<Button
										kind="word"
										size="small"
										disabled={columns.length === 1}
										onClick={() =>
											setColumns(columns.filter((one) => one !== column))
										}
									>
										Take out
										<span className="sr-only">: {column.name}</span>
									</Button>
								</Column>
							)}
						</SortableItem>
					))}
				</Sortable>
				<div>
					<Button
						onClick={() =>
							setColumns([
								...columns,
								{
									key: newKey(),
									name: "",
									sort: "Text",
									choices: [],
									sum: false,
									step: false,
								},
							])
						}
					>
						Add a column
					</Button>
				</div>
				<Refused of={act.refusal} />
				<div>
					<Button kind="go" type="submit" disabled={act.busy}>
						Keep the columns
					</Button>
				</div>
			</form>
		</Window>
	);
}

function Column({
	column,
	wrong,
	onChange,
	children,
}: {
	column: ListColumnDto;
	wrong: (field: string) => string | undefined;
	onChange: (part: Partial<ListColumnDto>) => void;
	children: React.ReactNode;
}) {
	const about = column.name || "new column";
	return (
		<div className="grid grid-cols-[1fr_150px] gap-x-3 gap-y-1.5 max-sm:grid-cols-1">
			<TextField
				label="Name"
				about={about}
				value={column.name}
				wrong={wrong("name")}
				onChange={(e) => onChange({ name: e.target.value })}
			/>
			<Select
				label="Holds"
				about={about}
				value={column.sort}
				wrong={wrong("sort")}
				onChange={(e) => onChange({ sort: e.target.value as ColumnSort })}
			>
				{Object.entries(columnWords).map(([sort, words]) => (
					<option key={sort} value={sort}>
						{words}
					</option>
				))}
			</Select>
			{column.sort === "OneOf" && (
				<TextArea
					label="Choices, one on each line"
					about={about}
					rows={3}
					value={column.choices.join("\n")}
					wrong={wrong("choices")}
					onChange={(e) => onChange({ choices: e.target.value.split("\n") })}
				/>
			)}
			{(column.sort === "Number" || column.sort === "Amount") && (
				<Tick
					label="Added up below"
					checked={column.sum}
					onChange={(sum) => onChange({ sum })}
				/>
			)}
			{column.sort === "Date" && (
				<Tick
					label="A step: it shows on its day, and in your calendar, until it is done"
					checked={column.step}
					onChange={(step) => onChange({ step })}
				/>
			)}
			<span className="flex items-center gap-3">{children}</span>
		</div>
	);
}
