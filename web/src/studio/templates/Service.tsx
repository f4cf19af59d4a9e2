import type { ReactNode } from "react";
import type { ServiceDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";
import { ServiceMore } from "./ServiceMore";

const emptyMore: NonNullable<ServiceDto["more"]> = {
	text: "",
	link: "",
	picture: null,
	steps: [],
	gross: false,
	hours: "",
	cost: "",
	onRateSheet: false,
	putAway: false,
};

export const emptyService: ServiceDto = {
	id: 0,
	title: "",
	detail: "",
	unit: "",
	unitPrice: "0",
	tax: "",
	more: emptyMore,
};

/** One service in a line; opened, all there is to say of it. */
export function Service({
	service,
	handle,
	open,
	wrong,
	onOpen,
	onChange,
	onCopy,
	onTakeOut,
}: {
	service: ServiceDto;
	handle: ReactNode;
	open: boolean;
	wrong: (field: string) => string | undefined;
	onOpen: (open: boolean) => void;
	onChange: (part: Partial<ServiceDto>) => void;
	onCopy: () => void;
	onTakeOut: () => void;
}) {
	const more = service.more ?? emptyMore;
	const name = service.title || "A new service";
	return (
		<div>
			<div className="flex items-start gap-2 py-1.5">
				<Button
					kind="line"
					className={`grid min-w-0 flex-1 grid-cols-[1fr_auto] gap-x-3 text-left ${more.putAway ? "text-soft line-through" : ""}`}
					aria-expanded={open}
					onClick={() => onOpen(!open)}
				>
					<span className="min-w-0 break-words">
						<b className="font-[600]">{name}</b>
						{service.detail && (
							<span className="under block">{service.detail}</span>
						)}
					</span>
					<span className="num text-right">
						{service.unitPrice}
						{service.unit && ` per ${service.unit}`}
						<span className="under block">
							{[
								`${service.tax || "0"} % ${more.gross ? "included" : "on top"}`,
								more.steps.length > 0 && "price steps",
								more.onRateSheet && "on the rate sheet",
								more.putAway && "put away",
							]
								.filter(Boolean)
								.join(", ")}
						</span>
					</span>
				</Button>
				<div className="quiet-acts -mt-1">{handle}</div>
			</div>
			{open && (
				<fieldset aria-label={name} className="grid gap-3 pb-4">
					<div className="grid grid-cols-2 items-start gap-2 md:grid-cols-[1.3fr_1.7fr_80px_100px_70px_120px]">
						<TextField
							label="Service"
							value={service.title}
							wrong={wrong("title")}
							onChange={(e) => onChange({ title: e.target.value })}
						/>
						<TextField
							label="Detail"
							value={service.detail}
							wrong={wrong("detail")}
							onChange={(e) => onChange({ detail: e.target.value })}
						/>
						<TextField
							label="Unit"
							placeholder="m², hour"
							value={service.unit}
							wrong={wrong("unit")}
							onChange={(e) => onChange({ unit: e.target.value })}
						/>
						<TextField
							label="Price"
							inputMode="decimal"
							className="num text-right"
							value={service.unitPrice}
							wrong={wrong("unitPrice")}
							onChange={(e) => onChange({ unitPrice: e.target.value })}
						/>
						<TextField
							label="Tax %"
							inputMode="decimal"
							className="num text-right"
							value={service.tax}
							wrong={wrong("tax")}
							onChange={(e) => onChange({ tax: e.target.value })}
						/>
						<Select
							label="The price is"
							value={more.gross ? "gross" : "net"}
							onChange={(e) =>
								onChange({
									more: { ...more, gross: e.target.value === "gross" },
								})
							}
						>
							<option value="net">before tax</option>
							<option value="gross">with tax</option>
						</Select>
					</div>
					<ServiceMore
						more={more}
						title={name}
						wrong={wrong}
						onChange={(part) => onChange({ more: { ...more, ...part } })}
					/>
					<div className="flex flex-wrap gap-2">
						<Button onClick={() => onOpen(false)}>Done with it</Button>
						<Button onClick={onCopy}>Copy it</Button>
						<Button
							onClick={() =>
								onChange({ more: { ...more, putAway: !more.putAway } })
							}
						>
							{more.putAway ? "Offer it again" : "Put it away"}
						</Button>
						<Button className="ml-auto" onClick={onTakeOut}>
							take out<span className="sr-only">: {name}</span>
						</Button>
					</div>
				</fieldset>
			)}
		</div>
	);
}
