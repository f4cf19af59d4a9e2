import { Popover } from "../../ui/Popover";
import { Tick } from "../../ui/Tick";
import type { Column, View } from "./useView";

const columns: { column: Column; words: string }[] = [
	{ column: "Client", words: "Client" },
	{ column: "Kind", words: "Kind" },
	{ column: "Stage", words: "Stage" },
	{ column: "Turn", words: "Turn" },
	{ column: "Reason", words: "Reason" },
	{ column: "Date", words: "Date" },
	{ column: "Source", words: "Source" },
	{ column: "Value", words: "Value, net" },
	{ column: "Agreed", words: "Agreed, with tax" },
	{ column: "Paid", words: "Paid" },
	{ column: "Owed", words: "Owed" },
	{ column: "Inquiry", words: "Inquiry" },
	{ column: "Booked", words: "Booked on" },
	{ column: "Over", words: "Finished on" },
];

/** Which columns the register shows, those of the kinds' own details, too. */
export function Columns({
	view,
	details,
}: {
	view: View;
	details: readonly string[];
}) {
	return (
		<Popover words={`Columns, ${view.columns.length}`}>
			<fieldset className="grid gap-1">
				<legend className="sr-only">Columns</legend>
				{columns.map(({ column, words: name }) => (
					<Tick
						key={column}
						label={name}
						checked={view.columns.includes(column)}
						onChange={(checked) =>
							view.set({
								columns: columns
									.map((one) => one.column)
									.filter((one) =>
										one === column ? checked : view.columns.includes(one),
									),
							})
						}
					/>
				))}
				{details.map((detail) => (
					<Tick
						key={detail}
						label={detail}
						checked={view.search.getAll("details").includes(detail)}
						onChange={(checked) =>
							view.set({
								details: details.filter((one) =>
									one === detail
										? checked
										: view.search.getAll("details").includes(one),
								),
							})
						}
					/>
				))}
			</fieldset>
		</Popover>
	);
}
