import { useEffect, useState } from "react";
import type {
	RegisterDto,
	RegisterGroup,
	RegisterOnly,
	Stage,
} from "../../api/schema";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";
import { Columns } from "./Columns";
import { InRoutine } from "./InRoutine";
import type { View } from "./useView";

const groups: { group: NonNullable<RegisterGroup>; words: string }[] = [
	{ group: "Standing", words: "how it stands" },
	{ group: "Month", words: "month of inquiry" },
	{ group: "Year", words: "year of inquiry" },
	{ group: "BookedMonth", words: "month of booking" },
	{ group: "Kind", words: "kind" },
	{ group: "Source", words: "source" },
	{ group: "Client", words: "client" },
	{ group: "Stage", words: "stage" },
	{ group: "None", words: "nothing" },
];
const onlies: { only: NonNullable<RegisterOnly>; words: string }[] = [
	{ only: "Late", words: "what is late" },
	{ only: "DueThisWeek", words: "due this week" },
	{ only: "CameIn", words: "came in within 24 hours" },
];
const stages: Stage[] = [
	"Lead",
	"Proposal",
	"Contract",
	"Payment",
	"Delivery",
	"Finished",
];

/** Which projects are shown, and by what they are put together. */
export function Narrowing({
	view,
	register,
}: {
	view: View;
	register: RegisterDto;
}) {
	const value = (name: string) => view.search.get(name) ?? "";
	const [words, setWords] = useState(value("words"));
	const { set } = view;
	const present = value("words");
	useEffect(() => {
		if (words === present) return;
		const timer = setTimeout(() => set({ words }), 250);
		return () => clearTimeout(timer);
	}, [words, present, set]);
	const choose = (
		label: string,
		name: string,
		all: string,
		options: readonly (string | number)[],
	) => (
		<Select
			label={label}
			value={value(name)}
			onChange={(e) => set({ [name]: e.target.value })}
		>
			<option value="">{all}</option>
			{options.map((option) => (
				<option key={option} value={option}>
					{option}
				</option>
			))}
		</Select>
	);
	return (
		<div
			className={`flex flex-wrap items-end gap-3 border-y border-hair py-3 ${value("routine") ? "" : "md:[&_select]:max-w-[136px]"}`}
		>
			<div className="w-36">
				<TextField
					label="Project or client"
					type="search"
					value={words}
					onChange={(e) => setWords(e.target.value)}
				/>
			</div>
			{choose("Kind", "kind", "all kinds", register.kinds)}
			{choose("Source", "source", "all sources", register.sources)}
			{choose("Stage", "stage", "all stages", stages)}
			{choose("Year", "year", "all years", register.years)}
			<Select
				label="Only"
				value={value("only")}
				onChange={(e) => set({ only: e.target.value })}
			>
				<option value="">any of them</option>
				{onlies.map(({ only, words: name }) => (
					<option key={only} value={only}>
						{name}
					</option>
				))}
			</Select>
			<InRoutine view={view} />
			<Select
				label="Put together by"
				value={value("group") || "Standing"}
				onChange={(e) => set({ group: e.target.value })}
			>
				{groups.map(({ group, words: name }) => (
					<option key={group} value={group}>
						{name}
					</option>
				))}
			</Select>
			<Columns
				view={view}
				offered={register.offered}
				details={register.details}
			/>
		</div>
	);
}
