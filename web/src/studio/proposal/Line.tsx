import type { ReactNode } from "react";
import type { OfferLineDto, PricedLineDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { TextField } from "../../ui/TextField";
import { LineMore } from "./LineMore";

/** One service as it is read; pressed, its fields stand in its place. */
export function Line({
	line,
	handle,
	open,
	priced,
	taken,
	wrong,
	onOpen,
	onChange,
	onLeaveOut,
}: {
	line: OfferLineDto;
	handle: ReactNode;
	open: boolean;
	/** What it comes to, as far as it was kept. */
	priced?: PricedLineDto;
	/** Whether it is part of what is suggested. */
	taken?: boolean;
	wrong: (field: string) => string | undefined;
	onOpen: (open: boolean) => void;
	onChange: (part: Partial<OfferLineDto>) => void;
	onLeaveOut: () => void;
}) {
	const name = line.title || "A new service";
	return (
		<div
			id={`line-${line.key}`}
			className={
				open ? "my-1 border-[1.5px] border-ink p-2.5" : "border-b border-hair"
			}
		>
			{open ? (
				<fieldset
					aria-label={name}
					onKeyDown={(event) => {
						if (event.key === "Escape") onOpen(false);
					}}
				>
					<div className="grid grid-cols-3 items-end gap-2 md:grid-cols-[1fr_76px_76px_96px_auto]">
						<div className="col-span-3 md:col-span-1">
							<TextField
								label="Service"
								autoFocus={!line.title}
								value={line.title}
								wrong={wrong("title")}
								onChange={(e) => onChange({ title: e.target.value })}
							/>
						</div>
						<TextField
							label="Quantity"
							autoFocus={Boolean(line.title)}
							inputMode="decimal"
							className="num text-right"
							value={line.quantity}
							wrong={wrong("quantity")}
							onChange={(e) => onChange({ quantity: e.target.value })}
						/>
						<TextField
							label="Unit"
							list="units"
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
						<b className="num min-w-20 pb-2 text-right font-[650]">
							{priced?.net}
						</b>
					</div>
					<LineMore line={line} wrong={wrong} onChange={onChange} />
					<div className="flex flex-wrap gap-2 pt-3">
						<Button onClick={() => onOpen(false)}>Done with it</Button>
						{handle}
						<Button className="ml-auto" onClick={onLeaveOut}>
							Leave out<span className="sr-only">: {name}</span>
						</Button>
					</div>
				</fieldset>
			) : (
				<div className="flex items-start gap-2 py-2">
					<Mark line={line} taken={taken} />
					<Button
						kind="line"
						className="grid min-w-0 flex-1 grid-cols-[1fr_auto] gap-x-3 text-left md:grid-cols-[1fr_auto_92px]"
						onClick={() => onOpen(true)}
					>
						<span className="min-w-0 break-words">
							{name}
							{line.detail && (
								<span className="block text-[13px] text-soft">
									{line.detail}
								</span>
							)}
						</span>
						<span className="num order-3 col-span-2 text-soft md:order-none md:col-span-1">
							{priced?.words}
							{line.more?.limits &&
								`, ${line.more.limits.least} to ${line.more.limits.most}`}
							{line.more?.less &&
								`, less ${line.more.less.figure}${line.more.less.sort === "Share" ? " %" : ""}`}
						</span>
						<b className="num text-right font-[650]">{priced?.net ?? "–"}</b>
					</Button>
					<div className="quiet-acts -mt-1">{handle}</div>
				</div>
			)}
		</div>
	);
}

/** Whether it is taken as suggested: a square for what is included or added, a ring for one of several. */
function Mark({ line, taken }: { line: OfferLineDto; taken?: boolean }) {
	return (
		<span
			aria-hidden="true"
			className={`mt-1 grid size-3.5 shrink-0 place-items-center border-[1.5px] border-ink ${line.role === "OneOf" ? "rounded-full" : ""}`}
		>
			{(taken || line.role === "Included") && (
				<span
					className={`size-2 bg-ink ${line.role === "OneOf" ? "rounded-full" : ""}`}
				/>
			)}
		</span>
	);
}
