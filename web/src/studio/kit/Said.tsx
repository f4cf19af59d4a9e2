import { Alert } from "../../ui/Alert";
import { AmountRow } from "../../ui/AmountRow";
import { Empty } from "../../ui/Empty";
import { Cell, Head, Table } from "../../ui/Table";
import { Part } from "./Part";

const rows = [
	{ title: "Harbour bakery wall", stage: "Delivery", owed: "€ 2 959.38" },
	{ title: "Causeway hostel", stage: "Proposal", owed: "" },
];

/** What a page says: tables, sums, that nothing is there, and what went wrong. */
export function Said() {
	return (
		<>
			<Part name="Table">
				<div className="w-full max-w-xl">
					<Table
						caption="Projects"
						head={
							<tr>
								<Head>Project</Head>
								<Head>Stage</Head>
								<Head end>Owed</Head>
							</tr>
						}
					>
						<tbody>
							{rows.map((row) => (
								<tr key={row.title}>
									<Cell className="font-[650]">{row.title}</Cell>
									<Cell>{row.stage}</Cell>
									<Cell end>{row.owed}</Cell>
								</tr>
							))}
						</tbody>
					</Table>
				</div>
			</Part>
			<Part name="Sums">
				<dl className="w-72">
					<AmountRow label="Agreed" amount="€ 4 932.30" />
					<AmountRow label="To come" amount="€ 2 959.38" quiet />
				</dl>
			</Part>
			<Part name="Empty">
				<Empty>
					Nothing is planned. Tasks, routine steps and invoices to come stand
					here.
				</Empty>
			</Part>
			<Part name="Alert">
				<Alert>
					Gesamt cannot be reached. What you typed is still here; try again in a
					moment.
				</Alert>
			</Part>
		</>
	);
}
