import { useState } from "react";
import { Link } from "react-router";
import { answer, api } from "../../api/client";
import type { ImportDto, ImportUndoneDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { useAct } from "../useAct";
import { amounts, countWords, placeWords } from "./besideWords";
import { Rows } from "./ImportRows";
import { states } from "./PastImport";

export function Taken({ table }: { table: ImportDto }) {
	const act = useAct();
	const [undone, setUndone] = useState<ImportUndoneDto>();
	const { beside } = table;
	const left = beside.places.filter((place) => place.row === null);
	return (
		<div className="grid gap-5">
			<p role="status">
				<b className="font-[650]">{table.name}</b>:{" "}
				{states[table.state](table.made)}
				{table.errors.length > 0 && `, ${table.errors.length} left out`}.{" "}
				{table.problem}
			</p>
			{table.state === "Running" && (
				<progress
					className="h-3.5 w-full accent-(--ink)"
					aria-label="Rows read"
					max={table.total}
					value={table.read}
				/>
			)}
			{undone && (
				<p className="font-[650]">
					{undone.removed} taken back
					{undone.kept > 0 &&
						`; ${undone.kept} went on since and stay as they are`}
				</p>
			)}
			{beside.letters + beside.files > 0 && table.state !== "Running" && (
				<div>
					<p>
						{amounts(beside.letters, beside.files)} came beside it
						{beside.out > 0
							? `; ${beside.out} belonged to no row and ${beside.out === 1 ? "was" : "were"} left out:`
							: ", each taken to its project."}
					</p>
					<ul
						aria-label="Letters and files left out"
						className="pt-1 text-[14.3px]"
					>
						{left.map((place) => (
							<li key={`${place.sort} ${place.place}`}>
								{placeWords(place)}: {countWords(place)}
							</li>
						))}
					</ul>
				</div>
			)}
			<Refused of={act.refusal} />
			<div className="flex flex-wrap gap-2">
				<Button asChild kind={table.state === "Failed" ? "plain" : "go"}>
					<Link to="/register">Look at the Register</Link>
				</Button>
				{table.state === "Failed" && (
					<Button
						kind="go"
						disabled={act.busy}
						onClick={() =>
							act.run(() =>
								answer(
									api.POST("/api/imports/{id}/rest", {
										params: { path: { id: table.id } },
									}),
								),
							)
						}
					>
						Take over the rest
					</Button>
				)}
				{(table.state === "Done" || table.state === "Failed") && (
					<Button
						disabled={act.busy}
						onClick={() =>
							act.run(async () =>
								setUndone(
									await answer(
										api.POST("/api/imports/{id}/undo", {
											params: { path: { id: table.id } },
										}),
									),
								),
							)
						}
					>
						Take all of it back
					</Button>
				)}
			</div>
			{table.errors.length > 0 && <Rows title="Left out" rows={table.errors} />}
		</div>
	);
}
