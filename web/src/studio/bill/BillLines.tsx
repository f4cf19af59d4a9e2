import { useQuery } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { useSearchParams } from "react-router";
import { answer, api, newKey } from "../../api/client";
import type { BillDto, BillLineDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Menu } from "../../ui/Menu";
import { moved, Sortable, SortableItem } from "../../ui/Sortable";
import { Tick } from "../../ui/Tick";
import { DiscountFields } from "../proposal/DiscountFields";
import { Line } from "./BillLine";
import { ChargeKept } from "./ChargeKept";

/** The lines of an invoice with their prices, and the discount on the whole. */
export function BillLines({
	project,
	bill,
	nets,
	wrong,
	onChange,
}: {
	project: number;
	bill: BillDto;
	/** What each comes to, as far as it was kept. */
	nets?: readonly string[];
	wrong: (field: string) => string | undefined;
	onChange: (bill: BillDto) => void;
}) {
	const set = (lines: BillLineDto[]) => onChange({ ...bill, lines });
	return (
		<section className="panel p-4" aria-label="Lines">
			<div className="flex flex-wrap items-end gap-x-4 gap-y-2 pb-2">
				<h2>What is billed</h2>
				<Tick
					label="Prices include the tax"
					checked={bill.gross}
					onChange={(gross) => onChange({ ...bill, gross })}
				/>
			</div>
			{bill.lines.length === 0 && (
				<p className="py-2 text-soft">
					No line yet. Add what was done besides the agreed price, or all of it
					where none was agreed.
				</p>
			)}
			<Sortable
				label="Lines"
				keys={bill.lines.map((line) => line.key)}
				onMove={(from, to) => set(moved(bill.lines, from, to))}
			>
				{bill.lines.map((line, i) => (
					<SortableItem
						key={line.key}
						id={line.key}
						name={line.title || "the new line"}
						className="group border-b border-hair bg-sheet py-2"
					>
						{(handle) => (
							<Line
								line={line}
								net={nets?.[i]}
								handle={handle}
								wrong={(field) => wrong(`lines[${i}].${field}`)}
								onChange={(part) =>
									set(
										bill.lines.map((one) =>
											one.key === line.key ? { ...one, ...part } : one,
										),
									)
								}
								onLeaveOut={() =>
									set(bill.lines.filter((one) => one.key !== line.key))
								}
							/>
						)}
					</SortableItem>
				))}
			</Sortable>
			<datalist id="taxes">
				<option value="0" />
				<option value="exempt" />
				<option value="reverse charge" />
			</datalist>
			<Add
				project={project}
				bill={bill}
				onAdd={(line) => set([...bill.lines, line])}
			>
				<FromKept project={project} bill={bill} onChange={onChange} />
			</Add>
			<div className="pt-4">
				<DiscountFields
					label="A discount on all of it"
					less={bill.less}
					why
					wrong={wrong("less")}
					onChange={(less) => onChange({ ...bill, less })}
				/>
			</div>
		</section>
	);
}

function Add({
	project,
	bill,
	onAdd,
	children,
}: {
	project: number;
	bill: BillDto;
	onAdd: (line: BillLineDto) => void;
	children: ReactNode;
}) {
	const services = useQuery({
		queryKey: ["project", project, "services", bill.gross],
		queryFn: () =>
			answer(
				api.GET("/api/projects/{id}/services", {
					params: { path: { id: project }, query: { gross: bill.gross } },
				}),
			),
	});
	const key = () => `line-${newKey().slice(0, 8)}`;
	return (
		<div className="flex flex-wrap gap-2 pt-3">
			{services.data && services.data.length > 0 && (
				<Menu
					words="Add from the price list"
					items={services.data.map((one) => ({
						key: one.id,
						words: one.name,
						group: one.forAllKinds ? "For every kind" : undefined,
						act: () =>
							onAdd({
								key: key(),
								title: one.line.title,
								detail: one.line.detail,
								quantity: one.line.quantity,
								unit: one.line.unit,
								unitPrice: one.line.unitPrice,
								tax: one.line.tax,
							}),
					}))}
				/>
			)}
			<Button
				onClick={() =>
					onAdd({
						key: key(),
						title: "",
						detail: "",
						quantity: "1",
						unit: "",
						unitPrice: "0",
						tax: bill.lines.at(-1)?.tax ?? services.data?.[0]?.line.tax ?? "0",
					})
				}
			>
				Another line
			</Button>
			{children}
		</div>
	);
}

/** Kept hours and costs become lines; with the days they are of where none are said. */
function FromKept({
	project,
	bill,
	onChange,
}: {
	project: number;
	bill: BillDto;
	onChange: (bill: BillDto) => void;
}) {
	const [search, setSearch] = useSearchParams();
	const [open, setOpen] = useState(search.has("kept"));
	return (
		<>
			<Button onClick={() => setOpen(true)}>Hours and costs</Button>
			{open && (
				<ChargeKept
					project={project}
					bill={bill}
					onPut={({ lines, from, until }) =>
						onChange({
							...bill,
							lines: [...bill.lines, ...lines],
							says:
								bill.says.performedFrom || bill.says.performedUntil
									? bill.says
									: {
											...bill.says,
											performedFrom: from,
											performedUntil: until,
										},
						})
					}
					onClose={() => {
						setOpen(false);
						setSearch({}, { replace: true });
					}}
				/>
			)}
		</>
	);
}
