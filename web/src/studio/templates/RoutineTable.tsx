import { Link } from "react-router";
import type { RoutineRowDto } from "../../api/schema";
import { Cell, Head, Table } from "../../ui/Table";
import { OnOff } from "./OnOff";

export const columns = [
	"in it now",
	"finished",
	"taken out",
	"failed",
] as const;

export function RoutineTable({
	routines,
}: {
	routines: readonly RoutineRowDto[];
}) {
	return (
		<Table
			head={
				<tr>
					<Head>Routine</Head>
					<Head>
						<span className="sr-only">On or off</span>
					</Head>
					{columns.map((column) => (
						<Head key={column} end className="whitespace-nowrap">
							{column}
						</Head>
					))}
				</tr>
			}
		>
			<tbody>
				{routines.map((routine) => (
					<tr key={routine.id}>
						<Cell>
							<Link
								data-walk
								className="font-[600]"
								to={`/templates/routines/${routine.id}`}
							>
								{routine.name}
							</Link>
							<span className="under block">
								begins with {routine.begins}, {routine.steps} step
								{routine.steps === 1 ? "" : "s"}
							</span>
							{routine.trouble.map((one) => (
								<span key={one} className="block text-small font-[650]">
									{one}
								</span>
							))}
						</Cell>
						<Cell className="whitespace-nowrap">
							<OnOff routine={routine} />
						</Cell>
						{[
							routine.inIt,
							routine.finished,
							routine.takenOut,
							routine.failed,
						].map((count, i) => (
							<Cell
								key={columns[i]}
								end
								className={`${count === 0 ? "text-soft" : ""} ${columns[i] === "failed" && count > 0 ? "font-[700]" : ""}`}
							>
								{count}
							</Cell>
						))}
					</tr>
				))}
			</tbody>
		</Table>
	);
}
