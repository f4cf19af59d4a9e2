import type { DetailRuleDto, FieldSort } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Select } from "../../ui/Select";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { sortWords } from "./FieldEditor";

export const detailSorts: FieldSort[] = [
	"ShortText",
	"LongText",
	"OneOf",
	"Number",
	"Date",
	"Amount",
];

export function Details({
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
							hint={
								detail.was && detail.was !== detail.sort
									? "values kept so far stay as they are written, and are shown so"
									: undefined
							}
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
						<Button
							kind="word"
							size="small"
							className="self-end pb-2"
							onClick={() => onChange(details.filter((_, at) => at !== i))}
						>
							take out<span className="sr-only">: {detail.name}</span>
						</Button>
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
			<Button
				className="mt-2"
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
			</Button>
		</fieldset>
	);
}
