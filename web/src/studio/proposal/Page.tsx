import { useState } from "react";
import type { OfferDto, PartSort } from "../../api/schema";
import { Button } from "../../ui/Button";
import { DateField } from "../../ui/DateField";
import { FilePick } from "../../ui/FilePick";
import { InPlace } from "../../ui/InPlace";
import { Menu } from "../../ui/Menu";
import { Select } from "../../ui/Select";
import { useUndo } from "../../ui/Undo";
import { ContractPart } from "./ContractPart";
import { DiscountFields } from "./DiscountFields";
import { Lines } from "./Lines";
import { newPart, partWords } from "./newParts";
import { PageParts } from "./PageParts";
import { Plan } from "./Plan";
import type { useAutosave } from "./useAutosave";
import { paperFileAt, usePaperFile } from "./usePaperFile";

const texts: PartSort[] = [
	"Why",
	"Scope",
	"Timeline",
	"AboutUs",
	"Terms",
	"Free",
];

/** The page as the client will read it, written where it is read. */
export function Page({
	project,
	saved,
}: {
	project: number;
	saved: ReturnType<typeof useAutosave>;
}) {
	const { draft, offer, refusal, change } = saved;
	const { amends } = draft;
	const [open, setOpen] = useState<string>();
	const undo = useUndo();
	const set = (part: Partial<OfferDto>) => change({ ...offer, ...part });
	const wrong = (field: string) => refusal?.of(field);
	const parts = offer.parts ?? [];
	const addPicture = usePaperFile((file) =>
		set(
			file.isPicture
				? {
						parts: [...parts, { ...newPart("Picture"), picture: file.hash }],
					}
				: { file: { hash: file.hash, name: file.name } },
		),
	);
	/** What is left out can be taken back at once. */
	function without(part: Partial<OfferDto>, words: string) {
		const before = offer;
		set(part);
		undo({ words, undo: async () => change(before) });
	}
	return (
		<section
			aria-label="The page"
			className="panel min-w-0 p-5 md:px-9 md:py-6"
		>
			<div id="offer-title">
				<InPlace
					label="Title"
					single
					className="font-head text-[27px] leading-tight font-[680]"
					placeholder="What it is about"
					value={offer.title}
					wrong={wrong("title")}
					onChange={(title) => set({ title })}
				/>
			</div>
			<div
				id="offer-validUntil"
				className="flex flex-wrap items-start gap-x-3 gap-y-2 pt-1 pb-4"
			>
				<p className={amends ? "text-soft" : "pt-6 text-soft"}>
					for {draft.client}
				</p>
				{!amends && (
					<div className="w-52">
						<DateField
							label="Valid until"
							value={offer.validUntil}
							wrong={wrong("validUntil")}
							onChange={(day) => day && set({ validUntil: day })}
						/>
					</div>
				)}
			</div>
			{amends && (
				<p className="mb-4 bg-plaster p-3">
					Agreed on {amends.agreedOn}: {amends.before}. Of it {amends.invoiced}{" "}
					is invoiced and stays. Change what is agreed below; your client signs
					the difference.
				</p>
			)}
			{offer.file && (
				<p className="flex flex-wrap items-baseline gap-3 pb-3">
					<Button asChild kind="word">
						<a href={paperFileAt(offer.file.hash)}>{offer.file.name}</a>
					</Button>
					<span className="under">is read as the proposal</span>
					<Button
						kind="word"
						size="small"
						onClick={() => without({ file: null }, "The file is left out.")}
					>
						leave it out
					</Button>
				</p>
			)}
			<PageParts
				parts={parts}
				wrong={wrong}
				onChange={(now) => set({ parts: now })}
				onLeaveOut={(at) =>
					without(
						{ parts: parts.filter((_, i) => i !== at) },
						"The part is left out.",
					)
				}
				services={
					<Lines
						project={project}
						draft={draft}
						lines={offer.lines}
						gross={offer.gross ?? false}
						open={open}
						wrong={(at, field) => wrong(`lines[${at}].${field}`)}
						onOpen={setOpen}
						onChange={(lines) => set({ lines })}
						onBegun={saved.take}
						onLeaveOut={(key) =>
							without(
								{ lines: offer.lines.filter((line) => line.key !== key) },
								"The service is left out.",
							)
						}
					/>
				}
			/>
			{!amends && (
				<div className="flex flex-wrap items-center gap-2 py-4">
					<Menu
						words="Add a text or dates"
						items={texts.map((sort) => ({
							words: partWords[sort].name,
							act: () => set({ parts: [...parts, newPart(sort)] }),
						}))}
					/>
					<FilePick
						accept="image/*,application/pdf"
						name="Add a picture, or a PDF that is read as the proposal"
						onFiles={addPicture}
					>
						Add a picture or your own PDF
					</FilePick>
				</div>
			)}
			<div className="grid gap-5 border-t border-hair pt-4">
				<div id="offer-less">
					<DiscountFields
						label="A discount on the whole"
						less={offer.less ?? null}
						why
						wrong={wrong("less")}
						onChange={(less) => set({ less })}
					/>
				</div>
				<Plan
					plan={offer.plan}
					mainDate={draft.mainDate}
					dates={draft.dates}
					amends={Boolean(amends)}
					wrong={(at, field) => wrong(`plan[${at}].${field}`)}
					onChange={(plan) => set({ plan })}
				/>
				{!amends && (
					<div className="flex flex-wrap gap-3">
						<div className="w-40">
							<Select
								label="Prices"
								value={offer.gross ? "gross" : "net"}
								onChange={(e) => set({ gross: e.target.value === "gross" })}
							>
								<option value="net">before tax</option>
								<option value="gross">with tax</option>
							</Select>
						</div>
						<div className="w-24">
							<Select
								label="Currency"
								value={offer.currency ?? ""}
								onChange={(e) => set({ currency: e.target.value })}
							>
								{draft.currencies.map((code) => (
									<option key={code}>{code}</option>
								))}
							</Select>
						</div>
					</div>
				)}
				<ContractPart saved={saved} />
			</div>
		</section>
	);
}
