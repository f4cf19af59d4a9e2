import { type FormEvent, useEffect, useRef, useState } from "react";
import type { Refusal } from "../../api/refusal";
import type { ListColumnDto, ListDto, ListEntryDto } from "../../api/schema";
import { Button } from "../Button";
import { DateField } from "../DateField";
import { Refused } from "../Refused";
import { Select } from "../Select";
import { TextField } from "../TextField";
import { type ListActs, nameOf, shifted } from "./acts";

const done = / done$/;

/** One row with a field for each column; Enter keeps it, Escape leaves it. */
export function RowForm({
	list,
	entry,
	newKey,
	acts,
	people,
	onClose,
	onKept = onClose,
}: {
	list: ListDto;
	/** Left out for a new row, which has a key of its own. */
	entry?: ListEntryDto;
	newKey?: string;
	acts?: ListActs;
	/** The list of names that a person's field offers. */
	people: string;
	onClose: () => void;
	onKept?: () => void;
}) {
	const [cells, setCells] = useState<Record<string, string>>({});
	const [refusal, setRefusal] = useState<Refusal>();
	const [busy, setBusy] = useState(false);
	const form = useRef<HTMLFormElement>(null);
	useEffect(() => {
		form.current?.querySelector<HTMLElement>("input, select")?.focus();
	}, []);
	if (!acts) return null;
	async function act(
		what: () => Promise<unknown> | undefined,
		after: () => void,
	) {
		setBusy(true);
		try {
			await what();
			setRefusal(undefined);
			after();
		} catch (refused) {
			setRefusal(refused as Refusal);
		} finally {
			setBusy(false);
		}
	}
	const keep = (event: FormEvent) => {
		event.preventDefault();
		act(
			() => acts.save(entry?.key ?? newKey ?? "", entry?.edition ?? 0, cells),
			onKept,
		);
	};
	return (
		<form
			ref={form}
			aria-label={entry ? nameOf(entry) : "A new row"}
			onSubmit={keep}
			onKeyDown={(event) => {
				if (event.key !== "Escape") return;
				event.stopPropagation();
				onClose();
			}}
			className="grid gap-3"
		>
			<div className="grid grid-cols-[repeat(auto-fill,minmax(min(100%,190px),1fr))] gap-x-3 gap-y-2">
				{list.columns.map((column, at) => (
					<Field
						key={column.key}
						column={column}
						people={people}
						value={cells[column.key] ?? entry?.cells[at]?.text ?? ""}
						wrong={refusal?.of(`cells.${column.key}`)}
						onChange={(value) => setCells({ ...cells, [column.key]: value })}
					/>
				))}
			</div>
			<Refused of={refusal} />
			<div className="flex flex-wrap gap-2">
				<Button kind="go" type="submit" disabled={busy}>
					{entry ? "Keep it" : "Add it"}
				</Button>
				<Button onClick={onClose}>Never mind</Button>
				{entry && (
					<Button
						className="ml-auto"
						disabled={busy}
						onClick={() =>
							act(() => acts.strike(entry, !entry.struck), onClose)
						}
					>
						{entry.struck ? "Put it back" : "Strike it out"}
					</Button>
				)}
				{entry && acts.order && (
					<>
						<Button
							disabled={busy || list.entries[0]?.key === entry.key}
							onClick={() =>
								act(
									() => acts.order?.(shifted(list.entries, entry.key, -1)),
									() => undefined,
								)
							}
						>
							Up
						</Button>
						<Button
							disabled={busy || list.entries.at(-1)?.key === entry.key}
							onClick={() =>
								act(
									() => acts.order?.(shifted(list.entries, entry.key, 1)),
									() => undefined,
								)
							}
						>
							Down
						</Button>
					</>
				)}
				{entry && acts.takeOut && (
					<Button
						disabled={busy}
						onClick={() => act(() => acts.takeOut?.(entry), onClose)}
					>
						Take it out
					</Button>
				)}
			</div>
		</form>
	);
}

function Field({
	column,
	people,
	value,
	wrong,
	onChange,
}: {
	column: ListColumnDto;
	people: string;
	value: string;
	wrong?: string;
	onChange: (value: string) => void;
}) {
	const about = { label: column.name, wrong };
	switch (column.sort) {
		case "Date":
			return (
				<DateField
					{...about}
					value={value.replace(done, "")}
					onChange={(day) =>
						onChange(day && done.test(value) ? `${day} done` : day)
					}
				/>
			);
		case "YesNo":
		case "OneOf":
			return (
				<Select
					{...about}
					value={value}
					onChange={(e) => onChange(e.target.value)}
				>
					<option value="" />
					{(column.sort === "YesNo" ? ["yes", "no"] : column.choices).map(
						(choice) => (
							<option key={choice}>{choice}</option>
						),
					)}
				</Select>
			);
		default:
			return (
				<TextField
					{...about}
					value={value}
					list={column.sort === "Person" ? people : undefined}
					inputMode={
						column.sort === "Number" || column.sort === "Amount"
							? "decimal"
							: column.sort === "Link"
								? "url"
								: undefined
					}
					onChange={(e) => onChange(e.target.value)}
				/>
			);
	}
}
