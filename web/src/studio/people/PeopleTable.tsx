import { Link } from "react-router";
import type { PeopleDto, PersonSort } from "../../api/schema";
import { Empty } from "../../ui/Empty";
import { Cell, Head, Table } from "../../ui/Table";

export const sorts: Record<PersonSort, string> = {
	Client: "client",
	Colleague: "colleague",
	Supplier: "supplier",
	Venue: "venue",
	Partner: "partner",
};

export function PeopleTable({ people }: { people: PeopleDto }) {
	if (people.total === 0)
		return (
			<Empty>
				Nobody of that kind yet. Every inquiry brings its client with it; add
				colleagues, suppliers and venues yourself.
			</Empty>
		);
	return (
		<>
			<Table
				caption="People"
				head={
					<tr>
						<Head>Name</Head>
						<Head>Reach</Head>
						<Head>Projects</Head>
						<Head end>Agreed, net</Head>
						<Head>Last contact</Head>
						<Head>Labels</Head>
					</tr>
				}
			>
				<tbody>
					{people.rows.map((one) => (
						<tr key={one.id}>
							<Cell>
								<Link data-walk className="font-[650]" to={`/people/${one.id}`}>
									{one.name}
								</Link>
								<span className="under">
									{one.organisation && ` ${one.organisation}`}
									{one.sort !== "Client" && ` ${sorts[one.sort]}`}
								</span>
							</Cell>
							<Cell className="min-w-44 text-soft wrap-anywhere">
								{one.reach}
							</Cell>
							<Cell className="num">
								{one.projects > 0 &&
									`${one.projects}${one.open > 0 ? `, ${one.open} open` : ""}`}
							</Cell>
							<Cell end>{one.agreed}</Cell>
							<Cell>
								<span className="whitespace-nowrap">{one.lastContact}</span>{" "}
								{one.daysSince != null && (
									<span className="text-soft whitespace-nowrap">
										{ago(one.daysSince)}
									</span>
								)}
							</Cell>
							<Cell className="text-soft">{one.labels.join(", ")}</Cell>
						</tr>
					))}
				</tbody>
			</Table>
			<p className="under pt-2">
				{people.total} {people.total === 1 ? "person" : "people"}
				{people.more > 0 && `, ${people.more} more than are shown`}
			</p>
		</>
	);
}

export const ago = (days: number) =>
	days === 0 ? "today" : `${days} day${days === 1 ? "" : "s"} ago`;
