import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../../api/client";
import type { OfferLineDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { useAct } from "../useAct";

/** Begins with the services of a proposal that was sent for another project of the kind. */
export function AsEarlier({
	project,
	onLines,
}: {
	project: number;
	onLines: (lines: OfferLineDto[]) => void;
}) {
	const act = useAct();
	const earlier = useQuery({
		queryKey: ["project", project, "earlier"],
		queryFn: () =>
			answer(
				api.GET("/api/projects/{id}/proposal/earlier", {
					params: { path: { id: project } },
				}),
			),
	});
	if (!earlier.data || earlier.data.length === 0) return null;
	return (
		<div className="grid gap-2 pb-3">
			<p className="label">Or begin with the services of</p>
			<div className="flex flex-wrap gap-2">
				{earlier.data.map((one) => (
					<Button
						key={one.version}
						disabled={act.busy}
						onClick={() =>
							act.run(async () =>
								onLines([
									...(await answer(
										api.GET("/api/projects/{id}/proposal/earlier/{version}", {
											params: { path: { id: project, version: one.version } },
										}),
									)),
								]),
							)
						}
					>
						{one.project}, {one.services} services
					</Button>
				))}
			</div>
			<p className="under">
				At today’s prices, in the quantities this project is known to need.
			</p>
			<Refused of={act.refusal} />
		</div>
	);
}
