import type { ReactNode } from "react";
import type { OfferPartDto, PartSort } from "../../api/schema";
import { Button } from "../../ui/Button";
import { DateField } from "../../ui/DateField";
import { InPlace } from "../../ui/InPlace";
import { moved, Sortable, SortableItem } from "../../ui/Sortable";
import { TextField } from "../../ui/TextField";
import { studioDay } from "../../ui/today";
import { partWords } from "./newParts";
import { paperFileAt } from "./usePaperFile";

type Parts = readonly OfferPartDto[];

/** The page in its parts, each written where it is read; the services stand where they were put. */
export function PageParts({
	parts,
	services,
	wrong,
	onChange,
	onLeaveOut,
}: {
	parts: Parts;
	services: ReactNode;
	wrong: (field: string) => string | undefined;
	onChange: (parts: OfferPartDto[]) => void;
	onLeaveOut: (at: number) => void;
}) {
	const set = (at: number, part: Partial<OfferPartDto>) =>
		onChange(parts.map((one, i) => (i === at ? { ...one, ...part } : one)));
	return (
		<Sortable
			label="The page"
			keys={parts.map((_, i) => `part${i}`)}
			className="grid gap-3"
			onMove={(from, to) => onChange(moved(parts, from, to))}
		>
			{parts.map((part, i) => (
				<SortableItem
					key={i}
					id={`part${i}`}
					name={part.heading || partWords[part.sort as PartSort].name}
					className="group bg-sheet"
				>
					{(handle) => (
						<section
							aria-label={part.heading || partWords[part.sort as PartSort].name}
						>
							<div className="flex items-start gap-2">
								<div className="min-w-0 flex-1">
									{part.sort === "Services" ? (
										<h2 className="py-0.5">Services</h2>
									) : (
										part.sort !== "Picture" && (
											<InPlace
												label="Heading"
												single
												className="font-head text-[16px] font-[650]"
												placeholder="A heading, if you like"
												value={part.heading ?? ""}
												wrong={wrong(`parts[${i}].heading`)}
												onChange={(heading) => set(i, { heading })}
											/>
										)
									)}
								</div>
								<div className="quiet-acts">
									{handle}
									{part.sort !== "Services" && (
										<Button
											kind="word"
											size="small"
											className="py-1.5"
											onClick={() => onLeaveOut(i)}
										>
											leave out
											<span className="sr-only">
												:{" "}
												{part.heading || partWords[part.sort as PartSort].name}
											</span>
										</Button>
									)}
								</div>
							</div>
							{part.sort === "Services" ? (
								services
							) : (
								<Body
									part={part}
									wrong={(field) => wrong(`parts[${i}].${field}`)}
									onChange={(one) => set(i, one)}
								/>
							)}
						</section>
					)}
				</SortableItem>
			))}
		</Sortable>
	);
}

function Body({
	part,
	wrong,
	onChange,
}: {
	part: OfferPartDto;
	wrong: (field: string) => string | undefined;
	onChange: (part: Partial<OfferPartDto>) => void;
}) {
	if (part.sort === "Timeline")
		return (
			<Days
				days={part.days ?? []}
				wrong={wrong}
				onChange={(days) => onChange({ days })}
			/>
		);
	return (
		<div className="max-w-[600px]">
			{part.sort === "Picture" && (
				<img
					src={paperFileAt(part.picture!)}
					alt={part.body || "no words yet"}
					className="max-h-80 max-w-full pb-1"
				/>
			)}
			<InPlace
				label={part.sort === "Picture" ? "Below the picture" : "Text"}
				className="leading-relaxed"
				placeholder={
					part.sort === "Picture"
						? "What it shows, also for who cannot see it"
						: "Write it as it is to be read."
				}
				value={part.body ?? ""}
				wrong={wrong("body")}
				onChange={(body) => onChange({ body })}
			/>
		</div>
	);
}

type Day = NonNullable<OfferPartDto["days"]>[number];

function Days({
	days,
	wrong,
	onChange,
}: {
	days: readonly Day[];
	wrong: (field: string) => string | undefined;
	onChange: (days: Day[]) => void;
}) {
	const set = (at: number, part: Partial<Day>) =>
		onChange(days.map((one, i) => (i === at ? { ...one, ...part } : one)));
	return (
		<div className="max-w-[640px]">
			{days.map((day, i) => (
				<fieldset
					key={i}
					aria-label={day.words || "A new date"}
					className="grid grid-cols-2 items-end gap-2 pb-2 md:grid-cols-[150px_150px_1fr_auto]"
				>
					<DateField
						label="On, or from"
						value={day.on}
						onChange={(on) => on && set(i, { on })}
					/>
					<DateField
						label="until"
						value={day.until ?? ""}
						wrong={wrong(`days[${i}]`)}
						onChange={(until) => set(i, { until: until || null })}
					/>
					<TextField
						label="What happens"
						value={day.words}
						onChange={(e) => set(i, { words: e.target.value })}
					/>
					<Button onClick={() => onChange(days.filter((_, at) => at !== i))}>
						leave out<span className="sr-only">: {day.words}</span>
					</Button>
				</fieldset>
			))}
			<Button
				onClick={async () =>
					onChange([
						...days,
						{
							on: days.at(-1)?.on ?? (await studioDay()),
							until: null,
							words: "",
						},
					])
				}
			>
				Add a date
			</Button>
		</div>
	);
}
