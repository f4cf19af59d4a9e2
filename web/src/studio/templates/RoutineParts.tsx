import { useState } from "react";
import { Link } from "react-router";
import { answer, api } from "../../api/client";
import type { RoutineDraftDto, RoutinePageDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { CountField } from "../../ui/CountField";
import { Refused } from "../../ui/Refused";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { useAct } from "../useAct";
import { Section } from "./Section";

/** Ways the routine goes by lead time. */
export function Variants({
	draft,
	wrong,
	onChange,
}: {
	draft: RoutineDraftDto;
	wrong?: string;
	onChange: (part: Partial<RoutineDraftDto>) => void;
}) {
	const set = (
		at: number,
		part: Partial<RoutineDraftDto["variants"][number]>,
	) =>
		onChange({
			variants: draft.variants.map((one, i) =>
				i === at ? { ...one, ...part } : one,
			),
		});
	return (
		<section aria-label="Variants" className="grid gap-2">
			{draft.variants.map((variant, i) => (
				<div key={i} className="flex flex-wrap items-end gap-3">
					<div className="w-56">
						<TextField
							label="Variant"
							value={variant.name}
							onChange={(e) => set(i, { name: e.target.value })}
						/>
					</div>
					<div className="w-56">
						<CountField
							label="At least so many months ahead"
							min={0}
							value={variant.monthsAhead}
							onChange={(count) => set(i, { monthsAhead: count ?? 0 })}
						/>
					</div>
					<Button
						kind="word"
						size="small"
						className="pb-1.5"
						onClick={() =>
							onChange({ variants: draft.variants.filter((_, at) => at !== i) })
						}
					>
						take out<span className="sr-only"> {variant.name}</span>
					</Button>
				</div>
			))}
			{wrong && <p className="wrong">{wrong}</p>}
			<p className="text-small text-soft">
				<Button
					kind="word"
					onClick={() =>
						onChange({
							variants: [
								...draft.variants,
								{ name: "", monthsAhead: draft.variants.length === 0 ? 3 : 1 },
							],
						})
					}
				>
					Add a variant by lead time
				</Button>
				{draft.variants.length > 0 &&
					". With less time than the shortest asks for, the routine is offered, never begun unasked."}
			</p>
		</section>
	);
}

/** The routine as text, to keep, hand on or edit in one go. */
export function AsText({
	text,
	onRead,
}: {
	text: string;
	onRead: (routine: RoutineDraftDto) => void;
}) {
	const [mine, setMine] = useState<string>();
	const act = useAct();
	return (
		<Section title="As text" under="to keep, to hand on, or to edit in one go">
			<div className="grid gap-2">
				<TextArea
					label="The routine as text"
					rows={14}
					className="font-mono text-[13.5px]"
					value={mine ?? text}
					wrong={act.refusal?.of("text")}
					onChange={(e) => setMine(e.target.value)}
				/>
				<Refused of={act.refusal} />
				<div>
					<Button
						disabled={mine === undefined || act.busy}
						onClick={() =>
							act.run(async () => {
								onRead(
									await answer(
										api.POST("/api/routines/read", {
											body: {
												text: mine ?? "",
											},
										}),
									),
								);
								setMine(undefined);
							})
						}
					>
						Read it in
					</Button>
				</div>
			</div>
		</Section>
	);
}

/** Who is in it, who has been, and why some were taken out. */
export function Runs({ page }: { page: RoutinePageDto }) {
	return (
		<section aria-label="Runs">
			<h3 className="rule pb-1.5">
				Who is in it{" "}
				<span className="font-normal text-soft">{page.runs.length}</span>
			</h3>
			{page.runs.map((run, i) => (
				<div
					key={`${run.project}${i}`}
					className="flex flex-wrap gap-x-3 border-b border-hair py-1.5 text-[14.3px]"
				>
					<Link className="font-[600]" to={`/projects/${run.project}`}>
						{run.title}
					</Link>
					<span className="text-soft">{run.client}</span>
					<span className="ml-auto">
						{run.state}
						{run.why && `: ${run.why}`}
					</span>
					{run.began && (
						<span className="text-soft max-md:hidden">began {run.began}</span>
					)}
				</div>
			))}
			{page.runs.length === 0 && (
				<p className="py-3 text-soft">
					No project has begun it yet. Those that do stand here, with what comes
					next.
				</p>
			)}
		</section>
	);
}
