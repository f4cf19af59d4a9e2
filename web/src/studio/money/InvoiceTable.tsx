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
					<Head>Project</Head>
					<Head>Client</Head>
					<Head>Issued</Head>
					<Head>Due</Head>
					<Head end>Total</Head>
					<Head end>Open</Head>
				</tr>
			}
		>
			{groups.map((group) => (
				<tbody key={group.name}>
					{group.name && (
						<tr className="border-b border-ink">
							<th scope="rowgroup" colSpan={5} className="pt-4 pb-1 text-left">
								{group.name}{" "}
								<span className="under font-normal">{group.count}</span>
							</th>
							<Cell end sum>
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
				<span className="under block">
					{[
						row.standing.words !== "open" && row.standing.words,
						row.standing.said && "they say it is paid",
					]
						.filter(Boolean)
						.join(", ")}
				</span>
			</Cell>
			<Cell>
				<Button asChild kind="word">
					<Link to={`/projects/${row.of.project}`}>{row.of.title}</Link>
				</Button>
			</Cell>
			<Cell>
				<Button asChild kind="word">
					<Link to={`/people/${row.of.person}`}>{row.of.client}</Link>
				</Button>
			</Cell>
			<Cell>{row.issued}</Cell>
			<Cell>
				{row.due}
				{row.standing.late && (
					<b className="block text-[13px]">{row.standing.late}</b>
				)}
			</Cell>
			<Cell end>
				<span className="num whitespace-nowrap">{row.total}</span>
			</Cell>
			<Cell end>
				<b className="num whitespace-nowrap">{row.owed}</b>
			</Cell>
		</tr>
	);
}
