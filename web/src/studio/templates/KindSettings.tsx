import { useState } from "react";
import type {
	BriefPartDto,
	DetailRuleDto,
	FieldSort,
	KindPageDto,
	KindSettingsDto,
} from "../../api/schema";
import { Alert, Select, TextArea, TextField } from "../../ui/Fields";
import { put } from "../../ui/http";
import { useAct } from "../useAct";
import { sortWords } from "./FieldEditor";
import { Section } from "./Section";

const detailSorts: FieldSort[] = [
	"ShortText",
	"LongText",
	"OneOf",
	"Number",
	"Date",
	"Amount",
];
const groups = {
	Why: "Why",
	What: "What",
	Frame: "Frame",
	Watch: "Watch",
} as const;
const uses = {
	None: "is read",
	Guide: "stays in sight",
	Obstacle: "comes back at its phase",
} as const;

/** What a kind wants to know, and how its brief is arranged. */
export function KindSettings({ kind }: { kind: KindPageDto }) {
	const [said, setSaid] = useState(kind.settings);
	const act = useAct();
	const set = (part: Partial<KindSettingsDto>) => setSaid({ ...said, ...part });
	const wrong = (field: string) => act.refusal?.of(field);
	return (
		<Section
			title="Details and brief"
			under={`${said.details.length} details, ${said.brief.length} parts of the brief`}
		>
			<Details
				details={said.details}
				wrong={wrong}
				onChange={(details) => set({ details })}
			/>
			<Brief
				parts={said.brief}
				wrong={wrong}
				onChange={(brief) => set({ brief })}
			/>
			<div className="grid gap-3 pt-4 md:grid-cols-2">
				<Select
					label="Follow-ups of an inquiry begin"
					value={said.followUps}
					onChange={(e) =>
						set({ followUps: e.target.value as KindSettingsDto["followUps"] })
					}
				>
					<option value="AtOnce">at once</option>
					<option value="WhenRead">when I have read the answers</option>
				</Select>
				<TextField
					label="An answer is promised within"
					hint="business days"
					type="number"
					min={1}
					value={said.replyWithin}
					wrong={wrong("replyWithin")}
					onChange={(e) => set({ replyWithin: Number(e.target.value) })}
				/>
			</div>
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
			<button
				type="button"
				className="btn btn-go mt-3"
				disabled={act.busy || said === kind.settings}
				onClick={() =>
					act.run(() => put(`/api/kinds/${kind.id}/settings`, said))
				}
			>
				Keep details and brief
			</button>
		</Section>
	);
}

function Details({
	details,
	wrong,
	onChange,
}: {
	details: readonly DetailRuleDto[];
	wrong: (field: string) => string | undefined;
	onChange: (details: DetailRuleDto[]) => void;
}) {
	const set = (at: number, part: Partial<DetailRuleDto>) =>
		onChange(details.map((one, i) => (i === at ? { ...one, ...part } : one)));
	return (
		<fieldset>
			<legend className="pb-1 font-[650]">Details of a project</legend>
			<ul className="grid gap-2">
				{details.map((detail, i) => (
					<li
						key={i}
						aria-label={detail.name || "New detail"}
						className="grid gap-2 border-b border-hair pb-2 md:grid-cols-[1.2fr_1fr_90px_auto_auto_auto]"
					>
						<TextField
							label="Detail"
							value={detail.name}
							wrong={wrong(`details[${i}].name`)}
							onChange={(e) => set(i, { name: e.target.value })}
						/>
						<Select
							label="Is a"
							value={detail.sort}
							onChange={(e) => set(i, { sort: e.target.value as FieldSort })}
						>
							{detailSorts.map((sort) => (
								<option key={sort} value={sort}>
									{sortWords[sort]}
								</option>
							))}
						</Select>
						<TextField
							label="Unit"
							value={detail.unit ?? ""}
							onChange={(e) => set(i, { unit: e.target.value || null })}
						/>
						<Tick
							label="needed for a fit"
							checked={detail.demanded}
							onChange={(demanded) => set(i, { demanded })}
						/>
						<Tick
							label="mine alone"
							checked={detail.private}
							onChange={(mine) => set(i, { private: mine })}
						/>
						<button
							type="button"
							className="link self-end pb-2 text-small"
							onClick={() => onChange(details.filter((_, at) => at !== i))}
						>
							take out<span className="sr-only">: {detail.name}</span>
						</button>
						{detail.sort === "OneOf" && (
							<div className="md:col-span-6">
								<TextArea
									label="Choices, one a line"
									rows={3}
									value={(detail.options ?? []).join("\n")}
									wrong={wrong(`details[${i}].options`)}
									onChange={(e) =>
										set(i, { options: e.target.value.split("\n") })
									}
								/>
							</div>
						)}
					</li>
				))}
			</ul>
			<button
				type="button"
				className="btn mt-2"
				onClick={() =>
					onChange([
						...details,
						{
							name: "",
							sort: "ShortText",
							unit: null,
							options: null,
							private: false,
							demanded: false,
						},
					])
				}
			>
				Add a detail
			</button>
		</fieldset>
	);
}

function Brief({
	parts,
	wrong,
	onChange,
}: {
	parts: readonly BriefPartDto[];
	wrong: (field: string) => string | undefined;
	onChange: (parts: BriefPartDto[]) => void;
}) {
	const set = (at: number, part: Partial<BriefPartDto>) =>
		onChange(parts.map((one, i) => (i === at ? { ...one, ...part } : one)));
	const move = (at: number, by: number) => {
		const next = [...parts];
		const [one] = next.splice(at, 1);
		if (one) next.splice(at + by, 0, one);
		onChange(next);
	};
	return (
		<fieldset className="pt-4">
			<legend className="pb-1 font-[650]">Parts of the brief</legend>
			<ol className="grid gap-2">
				{parts.map((part, i) => (
					<li
						key={part.key}
						aria-label={part.name || "New part"}
						className="grid gap-2 border-b border-hair pb-2 md:grid-cols-[1.6fr_90px_1.2fr_auto_auto_auto]"
					>
						<TextField
							label="Part"
							value={part.name}
							wrong={wrong(`brief[${i}].name`) ?? wrong(`brief[${i}].key`)}
							onChange={(e) => set(i, { name: e.target.value })}
						/>
						<Select
							label="Group"
							value={part.group}
							onChange={(e) =>
								set(i, { group: e.target.value as BriefPartDto["group"] })
							}
						>
							{Object.entries(groups).map(([group, words]) => (
								<option key={group} value={group}>
									{words}
								</option>
							))}
						</Select>
						<Select
							label="It"
							value={part.use}
							onChange={(e) =>
								set(i, { use: e.target.value as BriefPartDto["use"] })
							}
						>
							{Object.entries(uses).map(([use, words]) => (
								<option key={use} value={use}>
									{words}
								</option>
							))}
						</Select>
						<Tick
							label="mine alone"
							checked={part.private}
							onChange={(mine) => set(i, { private: mine })}
						/>
						<Tick
							label="after booking"
							checked={part.afterBooking}
							onChange={(afterBooking) => set(i, { afterBooking })}
						/>
						<span className="flex gap-2 self-end pb-2 text-small">
							<button
								type="button"
								className="link"
								disabled={i === 0}
								onClick={() => move(i, -1)}
							>
								up<span className="sr-only">: {part.name}</span>
							</button>
							<button
								type="button"
								className="link"
								disabled={i === parts.length - 1}
								onClick={() => move(i, 1)}
							>
								down<span className="sr-only">: {part.name}</span>
							</button>
							<button
								type="button"
								className="link"
								onClick={() => onChange(parts.filter((_, at) => at !== i))}
							>
								take out<span className="sr-only">: {part.name}</span>
							</button>
						</span>
					</li>
				))}
			</ol>
			<button
				type="button"
				className="btn mt-2"
				onClick={() =>
					onChange([
						...parts,
						{
							key: `part-${parts.length + 1}-${Date.now() % 100000}`,
							name: "",
							group: "Why",
							use: "None",
							private: false,
							from: null,
							afterBooking: false,
						},
					])
				}
			>
				Add a part
			</button>
		</fieldset>
	);
}

function Tick({
	label,
	checked,
	onChange,
}: {
	label: string;
	checked: boolean;
	onChange: (checked: boolean) => void;
}) {
	return (
		<label className="flex gap-2 self-end pb-2 text-[14px] whitespace-nowrap">
			<input
				type="checkbox"
				className="mt-1 size-3.5 accent-(--ink)"
				checked={checked}
				onChange={(e) => onChange(e.target.checked)}
			/>
			{label}
		</label>
	);
}
