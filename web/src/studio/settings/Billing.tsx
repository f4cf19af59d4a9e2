import type { HalfYearRateDto, LateSort } from "../../api/schema";
import { Button } from "../../ui/Button";
import { CountField } from "../../ui/CountField";
import { Select } from "../../ui/Select";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { studioDay } from "../../ui/today";
import { Section } from "../templates/Section";
import type { Part } from "./StudioPage";

const asks: Record<LateSort, string> = {
	Nothing: "nothing",
	Fixed: "a fixed sum",
	PerMonth: "per cent a month",
	Statutory: "what the law says",
};

/** What every invoice says besides its lines, and what is asked for late payment. */
export function Billing({ said, wrong, set, keep, studio }: Part) {
	const billing = said.billing!;
	const change = (part: Partial<typeof billing>) => set("billing", part);
	return (
		<Section
			title="On every invoice"
			under={`when it is late: ${asks[studio.said.billing!.late]}`}
		>
			<div className="grid gap-3 md:grid-cols-3">
				<Select
					label="Country"
					value={billing.country}
					wrong={wrong("billing.country")}
					onChange={(e) => change({ country: e.target.value })}
				>
					<option value="">as the time zone says</option>
					{studio.choices.countries.map((one) => (
						<option key={one}>{one}</option>
					))}
				</Select>
				<TextField
					label="Another way to pay"
					hint="a link or a few words, on paper and on the client’s page"
					value={billing.payAt}
					wrong={wrong("billing.payAt")}
					onChange={(e) => change({ payAt: e.target.value })}
				/>
				<TextField
					label="Exempt of tax, because"
					hint="where some of your work is"
					value={billing.exemptReason}
					wrong={wrong("billing.exemptReason")}
					onChange={(e) => change({ exemptReason: e.target.value })}
				/>
				<div className="md:col-span-3">
					<TextArea
						label="Below the sums"
						rows={2}
						value={billing.invoiceNote}
						wrong={wrong("billing.invoiceNote")}
						onChange={(e) => change({ invoiceNote: e.target.value })}
					/>
				</div>
				<Select
					label="For late payment I ask"
					hint="proposed with its working, never added by itself"
					value={billing.late}
					onChange={(e) => change({ late: e.target.value as LateSort })}
				>
					{Object.entries(asks).map(([sort, words]) => (
						<option key={sort} value={sort}>
							{words}
						</option>
					))}
				</Select>
				{(billing.late === "Fixed" || billing.late === "PerMonth") && (
					<TextField
						label={billing.late === "Fixed" ? "How much" : "Per cent a month"}
						inputMode="decimal"
						value={billing.lateFigure}
						wrong={wrong("billing.lateFigure")}
						onChange={(e) => change({ lateFigure: e.target.value })}
					/>
				)}
			</div>
			{billing.late === "Statutory" && (
				<Rates
					rates={billing.rates}
					wrong={wrong}
					onChange={(rates) => change({ rates })}
				/>
			)}
			{keep}
		</Section>
	);
}

/** Reference rates by half-year: a day whose rate is not here bears no interest that could be proposed. */
function Rates({
	rates,
	wrong,
	onChange,
}: {
	rates: readonly HalfYearRateDto[];
	wrong: Part["wrong"];
	onChange: (rates: HalfYearRateDto[]) => void;
}) {
	const put = (at: number, part: Partial<HalfYearRateDto>) =>
		onChange(rates.map((one, i) => (i === at ? { ...one, ...part } : one)));
	return (
		<fieldset className="pt-4">
			<legend className="font-[650]">Reference rates</legend>
			<p className="under max-w-prose pb-2">
				As the central bank publishes them for each half-year. Eight points are
				added, and 40 euro; only businesses and public bodies are asked. Without
				the rate of a half-year nothing is proposed.
			</p>
			<ul className="grid gap-2">
				{rates.map((rate, i) => (
					<li
						key={`${i}${rates.length}`}
						className="flex flex-wrap items-end gap-2"
					>
						<div className="w-28">
							<CountField
								label="Year"
								min={2002}
								value={rate.year}
								wrong={wrong(`billing.rates[${i}].year`)}
								onChange={(year) => put(i, { year: year ?? 0 })}
							/>
						</div>
						<Select
							label="Half"
							value={rate.half}
							onChange={(e) => put(i, { half: Number(e.target.value) })}
						>
							<option value={1}>first</option>
							<option value={2}>second</option>
						</Select>
						<div className="w-28">
							<TextField
								label="Per cent"
								inputMode="decimal"
								value={rate.percent}
								wrong={wrong(`billing.rates[${i}].percent`)}
								onChange={(e) => put(i, { percent: e.target.value })}
							/>
						</div>
						<Button
							size="small"
							onClick={() => onChange(rates.filter((_, at) => at !== i))}
						>
							Take out
							<span className="sr-only">
								: {rate.half === 1 ? "first" : "second"} half of {rate.year}
							</span>
						</Button>
					</li>
				))}
			</ul>
			<Button
				className="mt-3"
				onClick={async () => onChange([await next(rates), ...rates])}
			>
				Add a half-year
			</Button>
		</fieldset>
	);
}

/** The half-year after the newest; the first of this year where there is none. */
async function next(
	rates: readonly HalfYearRateDto[],
): Promise<HalfYearRateDto> {
	const newest = rates[0];
	if (!newest)
		return {
			year: Number((await studioDay()).slice(0, 4)),
			half: 1,
			percent: "",
		};
	return newest.half === 1
		? { year: newest.year, half: 2, percent: "" }
		: { year: newest.year + 1, half: 1, percent: "" };
}
