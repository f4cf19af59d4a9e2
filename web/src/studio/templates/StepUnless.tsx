import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { Answers } from "./StepAnswers";
import { actOf, type Props, parts } from "./stepParts";

export function Unless({ step, choices, variants, wrong, onChange }: Props) {
	return (
		<div className="grid gap-3 md:grid-cols-3">
			<fieldset>
				<legend className="label">Not, if it was</legend>
				<div className="grid grid-cols-2">
					{choices.stops.map(({ stop, words }) => (
						<Tick
							key={stop}
							label={words}
							checked={step.stops.includes(stop)}
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
								checked={step.in.includes(variant.name)}
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
				{actOf(step.does, choices)?.leaves && (
					<Tick
						label="at any hour"
						checked={step.anyHour}
						onChange={(anyHour) => onChange({ anyHour })}
					/>
				)}
				<Tick
					label="asks a favour: waits until all is paid and settled"
					checked={step.favour}
					onChange={(favour) => onChange({ favour })}
				/>
			</div>
		</div>
	);
}
