import type { ReactNode } from "react";
import type { BillLineDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { TextField } from "../../ui/TextField";
import { DiscountFields } from "../proposal/DiscountFields";

/** One line of an invoice, its fields beside each other. */
export function Line({
	line,
	net,
	handle,
	wrong,
	onChange,
	onLeaveOut,
}: {
	line: BillLineDto;
	net?: string;
	handle: ReactNode;
	wrong: (field: string) => string | undefined;
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
