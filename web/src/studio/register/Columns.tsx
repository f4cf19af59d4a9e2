import type { RegisterColumnDto } from "../../api/schema";
import { Popover } from "../../ui/Popover";
import { Tick } from "../../ui/Tick";
import type { View } from "./useView";

/** Which columns the register shows, those of the kinds' own details, too. */
export function Columns({
	view,
	offered,
	details,
}: {
	view: View;
	offered: readonly RegisterColumnDto[];
	details: readonly string[];
}) {
	const columns = offered.flatMap(({ column, words }) =>
		column ? [{ column, words }] : [],
	);
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
