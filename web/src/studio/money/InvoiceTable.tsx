import { Link } from "react-router";
import type {
	InvoiceGroupDto,
	InvoiceShow,
	ListedInvoiceDto,
} from "../../api/schema";
import { Button } from "../../ui/Button";
import { Cell, Head, Table } from "../../ui/Table";

/** Invoices in their groups, each with its project and its client. */
export function InvoiceTable({
	groups,
	show,
}: {
	groups: readonly InvoiceGroupDto[];
	show: InvoiceShow;
}) {
	if (groups.length === 0)
		return (
			<p className="text-soft">
				{show === "Open" || show === "Late"
					? "Nothing is open here. Invoices stand here from the day they are issued until they are paid."
					: "None. Invoices stand here from the day they are issued."}
			</p>
		);
	return (
		<Table
			caption="Invoices"
			head={
				<tr>
					<Head>Number</Head>
					<Head className="max-md:hidden">Project</Head>
					<Head>Client</Head>
					<Head className="max-md:hidden">Issued</Head>
					<Head>Due</Head>
					<Head end className="max-md:hidden">
						Total
					</Head>
					<Head end>Open</Head>
				</tr>
			}
		>
			{groups.map((group) => (
				<tbody key={group.name}>
					{group.name && (
						<tr className="border-b border-ink">
							<GroupName group={group} columns={5} className="max-md:hidden" />
							<GroupName group={group} columns={3} className="md:hidden" />
							<Cell end sum className="max-md:hidden">
								{group.total}
							</Cell>
							<Cell end sum>
								{group.owed}
							</Cell>
						</tr>
					)}
					{group.rows.map((row) => (
						<Row key={row.id} row={row} />
					))}
				</tbody>
			))}
		</Table>
	);
}

/** What the rows below have in common; a phone has fewer columns. */
function GroupName({
	group,
	columns,
	className,
}: {
	group: InvoiceGroupDto;
	columns: number;
	className: string;
}) {
	return (
		<th
			scope="rowgroup"
			colSpan={columns}
			className={`pt-4 pb-1 text-left ${className}`}
		>
			{group.name} <span className="under font-normal">{group.count}</span>
		</th>
	);
}

function Row({ row }: { row: ListedInvoiceDto }) {
	return (
		<tr className="border-b border-hair align-top">
			<Cell>
				<Button asChild kind="word">
					<Link
						data-walk
						to={`/projects/${row.of.project}?open=Invoice.${row.id}`}
					>
						{row.number}
					</Link>
				</Button>
				<span className="block md:hidden">{row.of.title}</span>
				<span className="under block">
					{[
						row.standing.words !== "open" && row.standing.words,
						row.standing.said && "they say it is paid",
					]
						.filter(Boolean)
						.join(", ")}
				</span>
			</Cell>
			<Cell className="max-md:hidden">
				<Button asChild kind="word">
					<Link to={`/projects/${row.of.project}`}>{row.of.title}</Link>
				</Button>
			</Cell>
			<Cell>
				<Button asChild kind="word">
					<Link to={`/people/${row.of.person}`}>{row.of.client}</Link>
				</Button>
			</Cell>
			<Cell className="max-md:hidden">{row.issued}</Cell>
			<Cell>
				{row.due}
				{row.standing.late && (
					<b className="block text-[13px]">{row.standing.late}</b>
				)}
			</Cell>
			<Cell end className="max-md:hidden">
				<span className="num whitespace-nowrap">{row.total}</span>
			</Cell>
			<Cell end>
				<b className="num whitespace-nowrap">{row.owed}</b>
			</Cell>
		</tr>
	);
}
