import type {
	Cause,
	ChoiceDto,
	LateStart,
	RoutineChoicesDto,
	SpanUnit,
	StepDoes,
	StepDto,
	StepMode,
	VariantDto,
} from "../../api/schema";
import { Select, TextField } from "../../ui/Fields";
import { acts, causes, late, stops, units } from "./stepWords";

type Props = {
	step: StepDto;
	choices: RoutineChoicesDto;
	variants: readonly VariantDto[];
	wrong: (field: string) => string | undefined;
	onChange: (part: Partial<StepDto>) => void;
	onTakeOut: () => void;
	onUp?: () => void;
	onDown?: () => void;
};

const withLetter: StepDoes[] = ["Letter", "Form", "Times"];
const asks: StepDoes[] = ["FollowOn", "EndAsQuiet", "TellMe"];
const leaves: StepDoes[] = ["Letter", "Form", "Times", "Invoice", "Hook"];

/** One step: when it acts, what it does, what ends it. */
export function StepEditor(props: Props) {
	const { step, onTakeOut, onUp, onDown } = props;
	return (
		<div className="grid gap-4 border-l-2 border-ink py-3 pl-4">
			<When {...props} />
			<What {...props} />
			<Unless {...props} />
			<div className="flex flex-wrap gap-4 text-small">
				{onUp && (
					<button type="button" className="link" onClick={onUp}>
						Move it up
					</button>
				)}
				{onDown && (
					<button type="button" className="link" onClick={onDown}>
						Move it down
					</button>
				)}
				<button type="button" className="link" onClick={onTakeOut}>
					Take this step out
				</button>
				{step.key && <span className="text-soft">key: {step.key}</span>}
			</div>
		</div>
	);
}

function When({ step, choices, wrong, onChange }: Props) {
	const before = step.count < 0;
	const size = Math.abs(step.count);
	return (
		<div className="grid gap-3 md:grid-cols-5">
			<TextField
				label="How long"
				type="number"
				min={0}
				value={size}
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
				<Options of={units} />
			</Select>
			<Select
				label="Before or after"
				value={before ? "before" : "after"}
				onChange={(e) =>
					onChange({ count: (e.target.value === "before" ? -1 : 1) * size })
				}
			>
				<option value="after">after</option>
				<option value="before">before</option>
			</Select>
			<Select
				label="Of what"
				value={step.cause}
				wrong={wrong("cause")}
				onChange={(e) => onChange({ cause: e.target.value as Cause })}
			>
				<Options of={causes} />
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
			{step.cause === "NamedDate" && (
				<div className="md:col-span-2">
					<TextField
						label="Which date"
						hint={`empty: the ${choices.dateName}`}
						value={step.dateName ?? ""}
						onChange={(e) => onChange({ dateName: e.target.value || null })}
					/>
				</div>
			)}
		</div>
	);
}

function What({ step, choices, wrong, onChange }: Props) {
	const list = listOf(step.does, choices);
	return (
		<div className="grid gap-3 md:grid-cols-3">
			<Select
				label="What it does"
				value={step.does}
				onChange={(e) => {
					const does = e.target.value as StepDoes;
					onChange({
						does,
						what: listOf(does, choices)?.[0]?.key ?? null,
						letter: withLetter.includes(does)
							? (step.letter ?? choices.letters[0]?.key ?? null)
							: null,
						...(asks.includes(does) ? { mode: "AsksFirst" as const } : {}),
					});
				}}
			>
				<Options of={acts} />
			</Select>
			{list && (
				<Select
					label="Which"
					value={step.what ?? ""}
					wrong={wrong("action")}
					onChange={(e) => onChange({ what: e.target.value })}
				>
					{!list.some((one) => one.key === step.what) && (
						<option value={step.what ?? ""}>{step.what ?? "choose"}</option>
					)}
					{list.map((one) => (
						<option key={one.key} value={one.key}>
							{one.name}
						</option>
					))}
				</Select>
			)}
			{["LabelOn", "LabelOff", "TellMe"].includes(step.does) && (
				<TextField
					label={step.does === "TellMe" ? "Words" : "Label"}
					value={step.what ?? ""}
					wrong={wrong("action")}
					onChange={(e) => onChange({ what: e.target.value })}
				/>
			)}
			{withLetter.includes(step.does) && (
				<Select
					label="Letter"
					value={step.letter ?? ""}
					wrong={wrong("letter")}
					onChange={(e) => onChange({ letter: e.target.value })}
				>
					{!choices.letters.some((one) => one.key === step.letter) && (
						<option value={step.letter ?? ""}>{step.letter ?? "choose"}</option>
					)}
					{choices.letters.map((one) => (
						<option key={one.key} value={one.key}>
							{one.name}
						</option>
					))}
				</Select>
			)}
			{!asks.includes(step.does) && (
				<Select
					label="How it acts"
					value={step.mode}
					onChange={(e) => onChange({ mode: e.target.value as StepMode })}
				>
					<option value="AsksFirst">asks first</option>
					<option value="ByItself">by itself</option>
				</Select>
			)}
			<Select
				label="If its time is past when it begins, it"
				value={step.lateStart}
				onChange={(e) => onChange({ lateStart: e.target.value as LateStart })}
			>
				<Options of={late} />
			</Select>
		</div>
	);
}

function Unless({ step, choices, variants, wrong, onChange }: Props) {
	return (
		<div className="grid gap-3 md:grid-cols-3">
			<fieldset>
				<legend className="label">Not, if it was</legend>
				<div className="grid grid-cols-2">
					{stops.map(({ stop, words }) => (
						<Tick
							key={stop}
							label={words}
							on={step.stops.includes(stop)}
							onChange={(on) =>
								onChange({
									stops: on
										? [...step.stops, stop]
										: step.stops.filter((one) => one !== stop),
								})
							}
						/>
					))}
				</div>
			</fieldset>
			<div className="grid content-start gap-2">
				<TextField
					label="Only if it came from"
					hint="sources, apart by commas; empty: from anywhere"
					list="sources"
					value={step.sources.join(", ")}
					wrong={wrong("if")}
					onChange={(e) => onChange({ sources: parts(e.target.value) })}
				/>
				<datalist id="sources">
					{choices.sources.map((source) => (
						<option key={source} value={source} />
					))}
				</datalist>
				<Answers step={step} details={choices.details} onChange={onChange} />
			</div>
			<div className="grid content-start gap-1">
				{variants.length > 0 && (
					<fieldset>
						<legend className="label">Only in</legend>
						{variants.map((variant) => (
							<Tick
								key={variant.name}
								label={variant.name || "a variant without a name"}
								on={step.in.includes(variant.name)}
								onChange={(on) =>
									onChange({
										in: on
											? [...step.in, variant.name]
											: step.in.filter((one) => one !== variant.name),
									})
								}
							/>
						))}
						{wrong("in") && <p className="wrong">{wrong("in")}</p>}
					</fieldset>
				)}
				{leaves.includes(step.does) && (
					<Tick
						label="at any hour"
						on={step.anyHour}
						onChange={(anyHour) => onChange({ anyHour })}
					/>
				)}
				<Tick
					label="asks a favour: waits until all is paid and settled"
					on={step.favour}
					onChange={(favour) => onChange({ favour })}
				/>
			</div>
		</div>
	);
}

function Answers({
	step,
	details,
	onChange,
}: {
	step: StepDto;
	details: readonly string[];
	onChange: Props["onChange"];
}) {
	if (details.length === 0) return null;
	const answer = step.answers[0];
	const set = (detail: string, is: string[]) =>
		onChange({
			answers: detail
				? [{ detail, is }, ...step.answers.slice(1)]
				: step.answers.slice(1),
		});
	return (
		<div className="grid grid-cols-2 gap-2">
			<Select
				label="Only if"
				value={answer?.detail ?? ""}
				onChange={(e) => set(e.target.value, answer?.is ?? [])}
			>
				<option value="">whatever was answered</option>
				{details.map((detail) => (
					<option key={detail}>{detail}</option>
				))}
			</Select>
			{answer && (
				<TextField
					label="is"
					hint="one of, apart by commas"
					value={answer.is.join(", ")}
					onChange={(e) => set(answer.detail, parts(e.target.value))}
				/>
			)}
		</div>
	);
}

/** While it is typed, a comma at the end stays to be gone on from. */
const parts = (text: string) =>
	text === "" ? [] : text.split(",").map((one) => one.replace(/^ /, ""));

function Tick({
	label,
	on,
	onChange,
}: {
	label: string;
	on: boolean;
	onChange: (on: boolean) => void;
}) {
	return (
		<label className="flex gap-2 text-[14px]">
			<input
				type="checkbox"
				className="mt-1 size-3.5 shrink-0 accent-(--ink)"
				checked={on}
				onChange={(e) => onChange(e.target.checked)}
			/>
			{label}
		</label>
	);
}

function Options({ of }: { of: Record<string, string> }) {
	return Object.entries(of).map(([value, words]) => (
		<option key={value} value={value}>
			{words}
		</option>
	));
}

function listOf(
	does: StepDoes,
	choices: RoutineChoicesDto,
): readonly ChoiceDto[] | undefined {
	switch (does) {
		case "Form":
			return choices.forms;
		case "Times":
			return choices.meetings;
		case "Tasks":
			return choices.taskLists;
		case "FollowOn":
			return choices.kinds;
		case "Hook":
			return choices.hooks;
		case "OpenPart":
			return [
				{ key: "Whole", name: "the project as a whole" },
				{ key: "Drafts", name: "drafts" },
				{ key: "Files", name: "files" },
				{ key: "Help", name: "help" },
			];
		default:
			return undefined;
	}
}
