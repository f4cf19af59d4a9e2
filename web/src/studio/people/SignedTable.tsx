import { Link } from "react-router";
import type { SignedPaperDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Cell, Head, Table } from "../../ui/Table";
import { useNarrow } from "../useNarrow";

/** Signed papers, each with its project and its file. */
export function SignedTable({ rows }: { rows: readonly SignedPaperDto[] }) {
	const narrow = useNarrow();
	if (rows.length === 0)
		return (
			<p className="text-soft">
				No signed paper. Contracts stand here as soon as somebody has signed.
			</p>
		);
	if (narrow) return <SignedList rows={rows} />;
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
							<Paper row={row} />
							{standing(row) && (
								<span className="under block">{standing(row)}</span>
							)}
						</Cell>
						<Cell>
							<Project row={row} />
						</Cell>
						<Cell>
							<Client row={row} />
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

/** The same on a phone, one under the other. */
function SignedList({ rows }: { rows: readonly SignedPaperDto[] }) {
	return (
		<ul aria-label="Signed papers" className="text-[14.3px]">
			{rows.map((row) => (
				<li key={row.file} className="border-b border-hair py-2 leading-6">
					<Paper row={row} />
					<span className="block">
						<Project row={row} />, <Client row={row} />
					</span>
					<span className="under block">
						{[
							row.kind,
							`signed ${row.on} by ${row.by}`,
							row.waits && `still to be signed by ${row.waits}`,
							standing(row),
						]
							.filter(Boolean)
							.join(", ")}
					</span>
				</li>
			))}
		</ul>
	);
}

function Paper({ row }: { row: SignedPaperDto }) {
	return (
		<Button asChild kind="word">
			<a data-walk href={row.file}>
				{row.title}
			</a>
		</Button>
	);
}

function Project({ row }: { row: SignedPaperDto }) {
	return (
		<Button asChild kind="word">
			<Link to={`/projects/${row.project}`}>{row.projectTitle}</Link>
		</Button>
	);
}

function Client({ row }: { row: SignedPaperDto }) {
	return (
		<Button asChild kind="word">
			<Link to={`/people/${row.person}`}>{row.client}</Link>
		</Button>
	);
}

const standing = (row: SignedPaperDto) =>
	[row.voided && "voided", !row.sealed && "not sealed"]
		.filter(Boolean)
		.join(", ");
