import { useState } from "react";
import type {
	Cause,
	KindPageDto,
	RoutineDto,
	SpanUnit,
	StepDto,
	StepMode,
	StopRule,
} from "../../api/schema";
import { Alert, Select, TextField } from "../../ui/Fields";
import { put } from "../../ui/http";
import { useAct } from "../useAct";
import { Section } from "./Section";

const causes: Record<Cause, string> = {
	RunBegun: "the routine began",
	PreviousStep: "the step before",
	InquiryCame: "the inquiry",
	ProposalSent: "the proposal was sent",
	ContractSent: "the contract was sent",
	Booked: "booking",
	InvoiceDue: "the invoice is due",
	HandedOver: "the handover",
	NamedDate: "the date that matters",
};
const units: Record<SpanUnit, string> = {
	Minutes: "minutes",
	Hours: "hours",
	Days: "days",
	BusinessDays: "business days",
	Weeks: "weeks",
	Months: "months",
	Years: "years",
};
const stops: { stop: StopRule; words: string }[] = [
	{ stop: "Answered", words: "answered" },
	{ stop: "Opened", words: "opened" },
	{ stop: "Chosen", words: "chosen" },
	{ stop: "Signed", words: "signed" },
	{ stop: "Paid", words: "paid" },
	{ stop: "Resting", words: "resting" },
];

/** The routines of a kind, each a dated list read like a sentence. */
export function Routines({ kind }: { kind: KindPageDto }) {
	return (
		<Section
			title="Routines"
			under={kind.routines
				.map((one) => one.name.replace("Routine ", ""))
				.join(", ")}
		>
			<div className="grid gap-5">
				{kind.routines.map((routine) => (
					<Routine
						key={`${routine.key}${routine.edition}`}
						kind={kind}
						routine={routine}
					/>
				))}
			</div>
		</Section>
	);
}

function Routine({
	kind,
	routine,
}: {
	kind: KindPageDto;
	routine: RoutineDto;
}) {
	const [steps, setSteps] = useState(routine.steps);
	const [open, setOpen] = useState<number>();
	const act = useAct();
	const change = (at: number, part: Partial<StepDto>) =>
		setSteps(steps.map((one, i) => (i === at ? { ...one, ...part } : one)));
	return (
		<section aria-label={routine.name}>
			<h4 className="font-head text-[14.5px] font-[650]">
				{routine.name}
				<span className="pl-2 font-normal text-soft">
					begins with{" "}
					{causes[routine.begins].replace(/ (was sent|is due)$/, "")}
				</span>
			</h4>
			<ol>
				{steps.map((step, i) => (
					<li key={i} className="border-b border-hair py-1.5">
						<button
							type="button"
							className="text-left"
							aria-expanded={open === i}
							onClick={() => setOpen(open === i ? undefined : i)}
						>
							{sentence(step, kind)}
						</button>
						{open === i && (
							<Step
								step={step}
								kind={kind}
								wrong={(field) => act.refusal?.of(`steps[${i}].${field}`)}
								onChange={(part) => change(i, part)}
								onTakeOut={() => {
									setSteps(steps.filter((_, at) => at !== i));
									setOpen(undefined);
								}}
							/>
						)}
					</li>
				))}
			</ol>
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
			<div className="flex gap-2 pt-2">
				<button
					type="button"
					className="btn"
					onClick={() => {
						setSteps([...steps, newStep(routine, kind)]);
						setOpen(steps.length);
					}}
				>
					Add a step
				</button>
				<button
					type="button"
					className="btn btn-go"
					disabled={act.busy || steps === routine.steps}
					onClick={() =>
						act.run(() =>
							put(`/api/kinds/${kind.id}/routines/${routine.key}`, {
								edition: routine.edition,
								steps,
							}),
						)
					}
				>
					Keep the steps
				</button>
			</div>
		</section>
	);
}

const newStep = (routine: RoutineDto, kind: KindPageDto): StepDto => ({
	key: "",
	cause: routine.begins,
	count: 3,
	unit: "Days",
	at: "09:00:00",
	anyHour: false,
	letter: kind.letters[0]?.key ?? null,
	mode: "AsksFirst",
	stops: ["Answered"],
	endsQuiet: false,
});

/** “2 days after the proposal was sent, if not opened, the letter “Did it reach you?”, asks first”. */
function sentence(step: StepDto, kind: KindPageDto): string {
	const size = Math.abs(step.count);
	const unit = size === 1 ? units[step.unit].slice(0, -1) : units[step.unit];
	const when =
		size === 0
			? `With ${causes[step.cause]}`
			: `${size} ${unit} ${step.count < 0 ? "before" : "after"} ${causes[step.cause]}`;
	const letter = kind.letters.find((one) => one.key === step.letter)?.name;
	const what = step.endsQuiet
		? "end it as gone quiet?"
		: letter
			? `the letter “${letter}”`
			: "the kind's tasks";
	const unless = step.stops
		.map((stop) => stops.find((one) => one.stop === stop)?.words)
		.filter(Boolean);
	return `${when}${unless.length > 0 ? `, if not ${unless.join(" or ")}` : ""}, ${what}, ${step.mode === "AsksFirst" ? "asks first" : "by itself"}`;
}

function Step({
	step,
	kind,
	wrong,
	onChange,
	onTakeOut,
}: {
	step: StepDto;
	kind: KindPageDto;
	wrong: (field: string) => string | undefined;
	onChange: (part: Partial<StepDto>) => void;
	onTakeOut: () => void;
}) {
	const before = step.count < 0;
	return (
		<div className="grid gap-3 py-3 md:grid-cols-4">
			<TextField
				label="How long"
				type="number"
				min={0}
				value={Math.abs(step.count)}
				wrong={wrong("count")}
				onChange={(e) =>
					onChange({ count: (before ? -1 : 1) * Number(e.target.value) })
				}
			/>
			<Select
				label="Counted in"
				value={step.unit}
				onChange={(e) => onChange({ unit: e.target.value as SpanUnit })}
			>
				{Object.entries(units).map(([unit, words]) => (
					<option key={unit} value={unit}>
						{words}
					</option>
				))}
			</Select>
			<Select
				label="Before or after"
				value={before ? "before" : "after"}
				onChange={(e) =>
					onChange({
						count:
							(e.target.value === "before" ? -1 : 1) * Math.abs(step.count),
					})
				}
			>
				<option value="after">after</option>
				<option value="before">before</option>
			</Select>
			<Select
				label="What"
				value={step.cause}
				onChange={(e) => onChange({ cause: e.target.value as Cause })}
			>
				{Object.entries(causes).map(([cause, words]) => (
					<option key={cause} value={cause}>
						{words}
					</option>
				))}
			</Select>
			<TextField
				label="At"
				type="time"
				hint="empty: the time of day of its cause"
				value={step.at?.slice(0, 5) ?? ""}
				onChange={(e) =>
					onChange({ at: e.target.value ? `${e.target.value}:00` : null })
				}
			/>
			<Select
				label="Letter"
				value={step.endsQuiet ? "quiet" : (step.letter ?? "")}
				wrong={wrong("letter")}
				onChange={(e) =>
					onChange(
						e.target.value === "quiet"
							? { letter: null, endsQuiet: true, mode: "AsksFirst" }
							: { letter: e.target.value || null, endsQuiet: false },
					)
				}
			>
				{step.letter === null && !step.endsQuiet && (
					<option value="">makes the tasks</option>
				)}
				<option value="quiet">none: asks to end it as gone quiet</option>
				{kind.letters.map((letter) => (
					<option key={letter.key} value={letter.key}>
						{letter.name}
					</option>
				))}
			</Select>
			<Select
				label="How it acts"
				value={step.mode}
				onChange={(e) => onChange({ mode: e.target.value as StepMode })}
			>
				<option value="AsksFirst">asks first</option>
				<option value="ByItself">by itself</option>
			</Select>
			<fieldset>
				<legend className="label">Not, if it was</legend>
				{stops.map(({ stop, words }) => (
					<label key={stop} className="flex gap-2 text-[14px]">
						<input
							type="checkbox"
							className="mt-1 size-3.5 accent-(--ink)"
							checked={step.stops.includes(stop)}
							onChange={(e) =>
								onChange({
									stops: e.target.checked
										? [...step.stops, stop]
										: step.stops.filter((one) => one !== stop),
								})
							}
						/>
						{words}
					</label>
				))}
			</fieldset>
			<button
				type="button"
				className="link justify-self-start text-small"
				onClick={onTakeOut}
			>
				Take this step out
			</button>
		</div>
	);
}
