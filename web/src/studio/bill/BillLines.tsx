import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../../api/client";
import type { BillDto, BillLineDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Menu } from "../../ui/Menu";
import { moved, Sortable, SortableItem } from "../../ui/Sortable";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { DiscountFields } from "../proposal/DiscountFields";

type Wrong = (field: string) => string | undefined;

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
	wrong: Wrong;
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
				<TextField
					label="Currency"
					className="w-20"
					value={bill.currency}
					wrong={wrong("currency")}
					onChange={(e) =>
						onChange({ ...bill, currency: e.target.value.toUpperCase() })
					}
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
			/>
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

function Line({
	line,
	net,
	handle,
	wrong,
	onChange,
	onLeaveOut,
}: {
	line: BillLineDto;
	net?: string;
	handle: React.ReactNode;
	wrong: Wrong;
	onChange: (part: Partial<BillLineDto>) => void;
	onLeaveOut: () => void;
}) {
	const name = line.title || "A new line";
	return (
		<fieldset aria-label={name} className="min-w-0">
			<div className="grid grid-cols-3 items-end gap-2 md:grid-cols-[1fr_76px_84px_96px_116px_84px]">
				<div className="col-span-3 md:col-span-1">
					<TextField
						label="What"
						autoFocus={!line.title}
						value={line.title}
						wrong={wrong("title")}
						onChange={(e) => onChange({ title: e.target.value })}
					/>
				</div>
				<TextField
					label="Quantity"
					inputMode="decimal"
					className="num text-right"
					value={line.quantity}
					wrong={wrong("quantity")}
					onChange={(e) => onChange({ quantity: e.target.value })}
				/>
				<TextField
					label="Unit"
					value={line.unit}
					wrong={wrong("unit")}
					onChange={(e) => onChange({ unit: e.target.value })}
				/>
				<TextField
					label="Unit price"
					inputMode="decimal"
					className="num text-right"
					value={line.unitPrice}
					wrong={wrong("unitPrice")}
					onChange={(e) => onChange({ unitPrice: e.target.value })}
				/>
				<TextField
					label="Tax, %"
					list="taxes"
					value={line.tax}
					wrong={wrong("tax")}
					onChange={(e) => onChange({ tax: e.target.value })}
				/>
				<b className="num self-end pb-2 text-right font-[650]">{net ?? "–"}</b>
			</div>
			<div className="grid gap-2 pt-2 md:grid-cols-2">
				<TextField
					label="More about it"
					hidden
					placeholder="more about it"
					value={line.detail}
					wrong={wrong("detail")}
					onChange={(e) => onChange({ detail: e.target.value })}
				/>
				<DiscountFields
					label="A discount"
					less={line.less ?? null}
					wrong={wrong("less")}
					onChange={(less) => onChange({ less })}
				/>
			</div>
			<div className="flex items-center gap-2 pt-1">
				{handle}
				<Button size="small" className="ml-auto" onClick={onLeaveOut}>
					Leave out<span className="sr-only">: {name}</span>
				</Button>
			</div>
		</fieldset>
	);
}

function Add({
	project,
	bill,
	onAdd,
}: {
	project: number;
	bill: BillDto;
	onAdd: (line: BillLineDto) => void;
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
	const key = () => `line-${crypto.randomUUID().slice(0, 8)}`;
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
		</div>
	);
}
