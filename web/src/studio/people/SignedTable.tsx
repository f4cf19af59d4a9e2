import { Link } from "react-router";
import type { SignedPaperDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Cell, Head, Table } from "../../ui/Table";

/** Signed papers, each with its project and its file. */
export function SignedTable({ rows }: { rows: readonly SignedPaperDto[] }) {
	if (rows.length === 0)
		return (
			<p className="text-soft">
				No signed paper. Contracts stand here as soon as somebody has signed.
			</p>
		);
	return (
		<Table
			caption="Signed papers"
			head={
				<tr>
					<Head>Paper</Head>
					<Head>Project</Head>
					<Head>Client</Head>
					<Head>Kind</Head>
					<Head>Signed</Head>
					<Head>By</Head>
				</tr>
			}
		>
			<tbody>
				{rows.map((row) => (
					<tr key={row.file} className="border-b border-hair align-top">
						<Cell>
							<Button asChild kind="word">
								<a href={row.file}>{row.title}</a>
							</Button>
							{(row.voided || !row.sealed) && (
								<span className="under block">
									{[row.voided && "voided", !row.sealed && "not sealed"]
										.filter(Boolean)
										.join(", ")}
								</span>
							)}
						</Cell>
						<Cell>
							<Button asChild kind="word">
								<Link to={`/projects/${row.project}`}>{row.projectTitle}</Link>
							</Button>
						</Cell>
						<Cell>
							<Button asChild kind="word">
								<Link to={`/people/${row.person}`}>{row.client}</Link>
							</Button>
						</Cell>
						<Cell>{row.kind}</Cell>
						<Cell>{row.on}</Cell>
						<Cell>
							{row.by}
							{row.waits && (
								<span className="under block">
									still to be signed by {row.waits}
								</span>
							)}
						</Cell>
					</tr>
				))}
			</tbody>
		</Table>
	);
}
