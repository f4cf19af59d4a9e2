import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../../api/client";
import type { KindPageDto } from "../../api/schema";
import { Shown } from "../../ui/Shown";
import { NewRoutine } from "./NewRoutine";
import { RoutineTable } from "./RoutineTable";
import { Section } from "./Section";

/** Every routine of every kind: on or off, who is in it, and what keeps it off. */
export function RoutineList() {
	const routines = useQuery({
		queryKey: ["routines"],
		queryFn: () => answer(api.GET("/api/routines")),
	});
	return (
		<div className="grid content-start gap-5">
			<h2 className="text-[19px]">All routines</h2>
			<Shown query={routines}>
				{(data) =>
					data.length === 0 ? (
						<p className="text-soft">
							There is no routine yet. Begin one on the page of a kind of work.
						</p>
					) : (
						[...new Set(data.map((one) => one.kindName))].map((kind) => (
							<section key={kind} aria-label={kind}>
								<h3 className="rule pb-1">{kind}</h3>
								<RoutineTable
									routines={data.filter((one) => one.kindName === kind)}
								/>
							</section>
						))
					)
				}
			</Shown>
		</div>
	);
}

/** The routines of one kind, and a way to begin another. */
export function KindRoutines({ kind }: { kind: KindPageDto }) {
	return (
		<Section
			title="Routines"
			under={kind.routines.map((one) => one.name.toLowerCase()).join(", ")}
		>
			<RoutineTable routines={kind.routines} />
			<NewRoutine kind={kind} />
		</Section>
	);
}
