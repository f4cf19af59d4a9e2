import type { LineRole, OfferLineDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Choice, Choices } from "../../ui/Choice";
import { FilePick } from "../../ui/FilePick";
import { Fold } from "../../ui/Fold";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { DiscountFields } from "./DiscountFields";
import { emptyMore } from "./newParts";
import { PriceSteps } from "./PriceSteps";
import { paperFileAt, usePaperFile } from "./usePaperFile";

const roles: [LineRole, string][] = [
	["Included", "Included"],
	["OneOf", "One of several"],
	["Extra", "May be added"],
];

/** How a service stands in the proposal, and what it may have besides its price. */
export function LineMore({
	line,
	wrong,
	onChange,
}: {
	line: OfferLineDto;
	wrong: (field: string) => string | undefined;
	onChange: (part: Partial<OfferLineDto>) => void;
}) {
	const more = line.more ?? emptyMore;
	const set = (part: Partial<typeof more>) =>
		onChange({ more: { ...more, ...part } });
	const keep = usePaperFile((file) => set({ picture: file.hash }));
	return (
		<div className="grid gap-3 pt-3">
			<Choices
				label="How it stands"
				value={line.role}
				className="flex flex-wrap gap-2"
				onChange={(role) =>
					onChange({
						role: role as LineRole,
						group: role === "OneOf" ? (line.group ?? "choice") : null,
					})
				}
			>
				{roles.map(([role, words]) => (
					<Choice key={role} value={role} chip>
						{words}
					</Choice>
				))}
			</Choices>
			{line.role === "OneOf" && (
				<TextField
					label="Chosen between (same word for each)"
					value={line.group ?? ""}
					onChange={(e) => onChange({ group: e.target.value })}
				/>
			)}
			{line.role !== "Included" && (
				<Tick
					label="Suggested: ticked when the page opens"
					checked={line.suggested}
					onChange={(suggested) => onChange({ suggested })}
				/>
			)}
			<div className="grid gap-2 md:grid-cols-[1fr_90px]">
				<TextField
					label="In a few words"
					value={line.detail}
					wrong={wrong("detail")}
					onChange={(e) => onChange({ detail: e.target.value })}
				/>
				<TextField
					label="Tax %"
					hint="or exempt, or reverse charge"
					className="num text-right"
					value={line.tax}
					wrong={wrong("tax")}
					onChange={(e) => onChange({ tax: e.target.value })}
				/>
			</div>
			<Fold line="Quantity to change, discount, price steps, more words, picture, link">
				<div className="grid gap-3 pt-2">
					<Tick
						label="The client may change the quantity"
						checked={more.limits !== null}
						onChange={(may) =>
							set({ limits: may ? { least: "1", most: line.quantity } : null })
						}
					/>
					{more.limits && (
						<div className="grid max-w-xs grid-cols-2 gap-2">
							<TextField
								label="Least"
								inputMode="decimal"
								className="num text-right"
								value={more.limits.least}
								wrong={wrong("least")}
								onChange={(e) =>
									set({ limits: { ...more.limits!, least: e.target.value } })
								}
							/>
							<TextField
								label="Most"
								inputMode="decimal"
								className="num text-right"
								value={more.limits.most}
								wrong={wrong("most")}
								onChange={(e) =>
									set({ limits: { ...more.limits!, most: e.target.value } })
								}
							/>
						</div>
					)}
					<DiscountFields
						label="A discount on it"
						less={more.less}
						wrong={wrong("less")}
						onChange={(less) => set({ less })}
					/>
					<PriceSteps
						steps={more.steps}
						wrong={(at, field) => wrong(`steps[${at}].${field}`)}
						onChange={(steps) => set({ steps })}
					/>
					<TextArea
						label="More about it"
						rows={3}
						value={more.text}
						wrong={wrong("text")}
						onChange={(e) => set({ text: e.target.value })}
					/>
					<TextField
						label="A page about it"
						type="url"
						placeholder="https://"
						value={more.link}
						wrong={wrong("link")}
						onChange={(e) => set({ link: e.target.value })}
					/>
					<div className="flex items-end gap-3">
						{more.picture && (
							<img
								src={paperFileAt(more.picture)}
								alt={line.title}
								className="max-h-24 max-w-40"
							/>
						)}
						<FilePick accept="image/*" onFiles={keep}>
							{more.picture ? "Another picture" : "A picture of it"}
						</FilePick>
						{more.picture && (
							<Button onClick={() => set({ picture: null })}>
								Without the picture
							</Button>
						)}
					</div>
				</div>
			</Fold>
		</div>
	);
}
