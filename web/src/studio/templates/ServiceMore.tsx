import type { ServiceDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { FilePick } from "../../ui/FilePick";
import { Fold } from "../../ui/Fold";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { PriceSteps } from "../proposal/PriceSteps";
import { paperFileAt, usePaperFile } from "../proposal/usePaperFile";

type More = NonNullable<ServiceDto["more"]>;

/** What there is to say of a service besides its price. */
export function ServiceMore({
	more,
	title,
	wrong,
	onChange,
}: {
	more: More;
	title: string;
	wrong: (field: string) => string | undefined;
	onChange: (part: Partial<More>) => void;
}) {
	const keep = usePaperFile((file) => onChange({ picture: file.hash }));
	return (
		<>
			<Tick
				label="On the rate sheet, which is sent before the call"
				checked={more.onRateSheet}
				onChange={(onRateSheet) => onChange({ onRateSheet })}
			/>
			<Fold line="Price steps, hours and cost, more words, picture, link">
				<div className="grid gap-3 pt-2">
					<PriceSteps
						steps={more.steps}
						wrong={(at, field) =>
							at === more.steps.length - 1 && field === "unitPrice"
								? wrong("steps")
								: undefined
						}
						onChange={(steps) => onChange({ steps })}
					/>
					<div className="grid max-w-md grid-cols-2 gap-2">
						<TextField
							label="Hours for one of it"
							hint="yours alone"
							inputMode="decimal"
							className="num text-right"
							value={more.hours}
							wrong={wrong("hours")}
							onChange={(e) => onChange({ hours: e.target.value })}
						/>
						<TextField
							label="Cost of one of it, before tax"
							hint="yours alone"
							inputMode="decimal"
							className="num text-right"
							value={more.cost}
							wrong={wrong("cost")}
							onChange={(e) => onChange({ cost: e.target.value })}
						/>
					</div>
					<TextArea
						label="More about it"
						rows={3}
						value={more.text}
						wrong={wrong("text")}
						onChange={(e) => onChange({ text: e.target.value })}
					/>
					<TextField
						label="A page about it"
						type="url"
						placeholder="https://"
						value={more.link}
						wrong={wrong("link")}
						onChange={(e) => onChange({ link: e.target.value })}
					/>
					<div className="flex items-end gap-3">
						{more.picture && (
							<img
								src={paperFileAt(more.picture)}
								alt={title}
								className="max-h-24 max-w-40"
							/>
						)}
						<FilePick accept="image/*" onFiles={keep}>
							{more.picture ? "Another picture" : "A picture of it"}
						</FilePick>
						{more.picture && (
							<Button onClick={() => onChange({ picture: null })}>
								Without the picture
							</Button>
						)}
					</div>
				</div>
			</Fold>
		</>
	);
}
