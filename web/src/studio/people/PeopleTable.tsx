import { Link } from "react-router";
import type { PeopleDto, PersonRowDto, PersonSort } from "../../api/schema";
import { Cell, Head, Table } from "../../ui/Table";

export const sorts: Record<PersonSort, string> = {
	Client: "client",
	Colleague: "colleague",
	Supplier: "supplier",
	Venue: "venue",
	Partner: "partner",
};

export function PeopleTable({ people }: { people: PeopleDto }) {
	return (
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
							<span className="under"> {belongs(one).join(", ")}</span>
						</Cell>
						<Cell className="min-w-44 text-soft wrap-anywhere">
							{one.reach}
						</Cell>
						<Cell className="num">
							{one.projects > 0 && `${one.projects}${open(one)}`}
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
	);
}

/** The same on a phone: each with what the columns say, one under the other. */
export function PeopleList({ people }: { people: PeopleDto }) {
	return people.rows.map((one) => (
		<Link
			key={one.id}
			data-walk
			to={`/people/${one.id}`}
			className="block border-b border-hair py-2"
		>
			<b className="font-[650]">{one.name}</b>
			{[
				[...belongs(one), one.reach, ...one.labels],
				[
					one.projects > 0 &&
						`${one.projects} project${one.projects === 1 ? "" : "s"}${open(one)}`,
					one.agreed,
					one.daysSince != null && `last contact ${ago(one.daysSince)}`,
				],
			].map((line) => (
				<span key={line.join()} className="under block wrap-anywhere">
					{line.filter(Boolean).join(", ")}
				</span>
			))}
		</Link>
	));
}

/** The organisation and the part somebody has, where they say more than the name. */
const belongs = (one: PersonRowDto) =>
	[
		one.organisation !== one.name && one.organisation,
		one.sort !== "Client" && sorts[one.sort],
	].filter(Boolean);

const open = (one: PersonRowDto) => (one.open > 0 ? `, ${one.open} open` : "");

export const ago = (days: number) =>
	days === 0 ? "today" : `${days} day${days === 1 ? "" : "s"} ago`;
