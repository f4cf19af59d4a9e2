import type { ReportsDto } from "../../api/schema";
import { DateField } from "../../ui/DateField";
import { isDay, withDay } from "../../ui/days";
import { Select } from "../../ui/Select";
import { FigureButton } from "./FigureButton";
import type { Reports } from "./useReports";

/** What became of them in one sentence, and what narrows it. */
export function ReportsHead({
	data,
	reports,
}: {
	data: ReportsDto;
	reports: Reports;
}) {
	const { head } = data;
	return (
		<>
			<div className="flex flex-wrap items-end gap-x-5 gap-y-2 pt-3 pb-3">
				<h1>Where inquiries go</h1>
				<p className="text-soft">
					<FigureButton onOpen={() => reports.open({ of: "Came" })}>
						{head.came} {head.came === 1 ? "inquiry" : "inquiries"}
					</FigureButton>
					, {head.title}.{" "}
					<FigureButton onOpen={() => reports.open({ of: "Won" })}>
						{head.won}
					</FigureButton>{" "}
					became work,{" "}
					<FigureButton onOpen={() => reports.open({ of: "Open" })}>
						{head.open}
					</FigureButton>{" "}
					{head.open === 1 ? "is" : "are"} open,{" "}
					<FigureButton onOpen={() => reports.open({ of: "Lost" })}>
						{head.lost}
					</FigureButton>{" "}
					{head.lost === 1 ? "was" : "were"} lost
					{head.apart > 0 && (
						<>
							,{" "}
							<FigureButton onOpen={() => reports.open({ of: "Apart" })}>
								{head.apart}
							</FigureButton>{" "}
							declined or referred by you
						</>
					)}
					.
				</p>
				<Narrowed data={data} reports={reports} />
			</div>
			<Days data={data} reports={reports} />
		</>
	);
}

function Narrowed({ data, reports }: { data: ReportsDto; reports: Reports }) {
	const { asked, go } = reports;
	const { choices, head } = data;
	const shown = asked.from || asked.until ? "range" : (asked.year ?? "usual");
	const to = (choice: string) => {
		const none = { from: undefined, until: undefined, at: undefined };
		if (choice === "range")
			go({ ...none, from: head.from, until: head.until, year: undefined });
		else go({ ...none, year: choice === "usual" ? undefined : choice });
	};
	return (
		<div className="ml-auto flex flex-wrap items-end gap-2 print:hidden">
			<Select
				label="Kind of work"
				hidden
				value={asked.kind ?? ""}
				onChange={(e) => go({ kind: e.target.value || undefined })}
			>
				<option value="">all kinds</option>
				{choices.kinds.map((one) => (
					<option key={one.id} value={one.id}>
						{one.name}
					</option>
				))}
			</Select>
			<Names
				label="Source"
				all="all sources"
				names={choices.sources}
				value={asked.source}
				onChange={(source) => go({ source })}
			/>
			{choices.campaigns.length > 0 && (
				<Names
					label="Campaign"
					all="all campaigns"
					names={choices.campaigns}
					value={asked.campaign}
					onChange={(campaign) => go({ campaign })}
				/>
			)}
			<Select
				label="Which inquiries"
				hidden
				value={shown}
				onChange={(e) => to(e.target.value)}
			>
				<option value="usual">the last three years</option>
				{choices.years.map((one) => (
					<option key={one} value={one}>
						{one}
					</option>
				))}
				<option value="all">all years</option>
				<option value="range">from … to …</option>
			</Select>
		</div>
	);
}

function Names({
	label,
	all,
	names,
	value,
	onChange,
}: {
	label: string;
	all: string;
	names: readonly string[];
	value?: string;
	onChange: (name?: string) => void;
}) {
	return (
		<Select
			label={label}
			hidden
			value={value ?? ""}
			onChange={(e) => onChange(e.target.value || undefined)}
		>
			<option value="">{all}</option>
			{names.map((one) => (
				<option key={one}>{one}</option>
			))}
		</Select>
	);
}

/** The first and last day of any other range. */
function Days({ data, reports }: { data: ReportsDto; reports: Reports }) {
	const { from, until } = reports.asked;
	if (!from && !until) return null;
	const set = (name: "from" | "until") => (day: string) =>
		isDay(day) &&
		reports.go({ ...withDay(data.head, name, day), at: undefined });
	return (
		<div className="flex flex-wrap gap-3 pb-3 print:hidden">
			<DateField label="From" back value={from ?? ""} onChange={set("from")} />
			<DateField label="To" back value={until ?? ""} onChange={set("until")} />
		</div>
	);
}
