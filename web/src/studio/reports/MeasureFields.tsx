import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../../api/client";
import type { GoalDto, GoalFigure, GoalsDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";

type Measure = GoalDto["said"]["measures"][number];

/** What a measure counts, from where to where. */
export function MeasureFields({
	measure,
	at,
	many,
	figures,
	wrong,
	onChange,
	onRemove,
}: {
	measure: Measure;
	at: number;
	/** Whether there are others beside it. */
	many: boolean;
	/** What it can be taken from. */
	figures: GoalsDto["figures"];
	wrong: (field: string) => string | undefined;
	onChange: (to: Measure) => void;
	onRemove: () => void;
}) {
	const kinds = useQuery({
		queryKey: ["kinds"],
		queryFn: () => answer(api.GET("/api/kinds")),
	});
	const counted = figures.find((one) => one.figure === measure.figure);
	const set = (part: Partial<Measure>) => onChange({ ...measure, ...part });
	const number = (field: "start" | "target" | "present", label: string) => (
		<TextField
			label={label}
			inputMode="decimal"
			value={measure[field]}
			wrong={wrong(field)}
			onChange={(e) => set({ [field]: e.target.value })}
		/>
	);
	return (
		<fieldset className="grid gap-3 border-t border-hair pt-2">
			<legend className="label">
				{many ? `Measure ${at + 1}` : "Measured by"}
			</legend>
			<div className="grid gap-3 sm:grid-cols-2">
				<Select
					label="What is counted"
					value={measure.figure ?? ""}
					onChange={(e) =>
						set({ figure: (e.target.value || null) as GoalFigure })
					}
				>
					{figures.map((one) => (
						<option key={one.figure} value={one.figure ?? ""}>
							{one.words}
						</option>
					))}
					<option value="">a number that you type</option>
				</Select>
				{!measure.figure && (
					<TextField
						label="What the number is"
						value={measure.words}
						wrong={wrong("words")}
						onChange={(e) => set({ words: e.target.value })}
					/>
				)}
			</div>
			<div className="grid grid-cols-3 gap-3">
				{number("start", "Begins at")}
				{number("target", "To reach")}
				{!measure.figure && number("present", "Stands at")}
			</div>
			{counted?.countsProjects && (
				<div className="grid gap-3 sm:grid-cols-3">
					<Select
						label="Kind of work"
						value={measure.kind ?? ""}
						wrong={wrong("kind")}
						onChange={(e) => set({ kind: Number(e.target.value) || null })}
					>
						<option value="">all kinds</option>
						{kinds.data?.map((kind) => (
							<option key={kind.id} value={kind.id}>
								{kind.name}
							</option>
						))}
					</Select>
					<TextField
						label="Only from the source"
						value={measure.source ?? ""}
						wrong={wrong("source")}
						onChange={(e) => set({ source: e.target.value || null })}
					/>
					<TextField
						label="Only from this price on"
						inputMode="decimal"
						value={measure.atLeast ?? ""}
						wrong={wrong("atLeast")}
						onChange={(e) => set({ atLeast: e.target.value || null })}
					/>
				</div>
			)}
			{many && (
				<div>
					<Button kind="word" onClick={onRemove}>
						leave this measure out
					</Button>
				</div>
			)}
		</fieldset>
	);
}
