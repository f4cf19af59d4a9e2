import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../../api/client";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Shown } from "../../ui/Shown";
import { Tick } from "../../ui/Tick";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";
import { sortWords } from "./words";

/** Lays kept ones on a project, several at once, in the order in which they are ticked. */
export function LayLists({
	project,
	onClose,
}: {
	project: number;
	onClose: () => void;
}) {
	const kept = useKeptLists();
	const [chosen, setChosen] = useState<string[]>([]);
	const act = useAct();
	const lay = () =>
		act.run(async () => {
			await answer(
				api.POST("/api/projects/{id}/lists/lay", {
					params: { path: { id: project } },
					body: { lists: chosen },
				}),
			);
			onClose();
		});
	return (
		<Window title="Lay kept ones" open wide onClose={onClose}>
			<Shown query={kept}>
				{(data) => (
					<div className="grid gap-3">
						{data.length === 0 && (
							<p className="text-soft">
								None is kept yet. Begin one under Templates, or keep the one of
								a project to lay it again.
							</p>
						)}
						{data.map((one) => {
							const place = chosen.indexOf(one.id);
							return (
								<Tick
									key={one.id}
									label={
										<>
											{one.name}
											{place >= 0 && chosen.length > 1 && (
												<b className="font-[650]">, number {place + 1}</b>
											)}
										</>
									}
									under={`${sortWords[one.sort].toLowerCase()}, ${one.about}`}
									checked={place >= 0}
									onChange={(to) =>
										setChosen(
											to
												? [...chosen, one.id]
												: chosen.filter((id) => id !== one.id),
										)
									}
								/>
							);
						})}
						<Refused of={act.refusal} />
						{data.length > 0 && (
							<div>
								<Button
									kind="go"
									disabled={chosen.length === 0 || act.busy}
									onClick={lay}
								>
									{chosen.length > 1
										? `Lay ${chosen.length} of them`
										: "Lay it"}
								</Button>
							</div>
						)}
					</div>
				)}
			</Shown>
		</Window>
	);
}

export const useKeptLists = () =>
	useQuery({
		queryKey: ["lists"],
		queryFn: () => answer(api.GET("/api/lists")),
	});
