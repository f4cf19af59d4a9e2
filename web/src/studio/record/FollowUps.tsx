import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../../api/client";
import type { RecordDto, WaitingRoutineDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Fold } from "../../ui/Fold";
import { Shown } from "../../ui/Shown";
import { Begin } from "./BeginRoutine";
import { Block } from "./Block";
import { Stop } from "./StopFollowUps";

/** The routines at work on a project, those to come, and the one act that stops all of it. */
export function FollowUps({ record }: { record: RecordDto }) {
	const routines = useQuery({
		queryKey: ["project", record.id, "routines"],
		queryFn: () =>
			answer(
				api.GET("/api/projects/{id}/routines", {
					params: { path: { id: record.id } },
				}),
			),
	});
	const [beginning, setBeginning] = useState<WaitingRoutineDto>();
	return (
		<Block
			title="Follow-ups"
			aside={routines.data && <Stop record={record} routines={routines.data} />}
		>
			<Shown query={routines}>
				{(data) => (
					<div className="text-[14.3px]">
						{data.runs.map((run, i) => (
							<p key={`${run.name}${i}`} className="flex gap-3 py-0.5">
								{run.name}
								<span className="ml-auto text-right text-soft">
									{run.state}
								</span>
							</p>
						))}
						{data.runs.length === 0 && (
							<p className="py-1 text-soft">Nothing follows up yet.</p>
						)}
						{data.waiting.length > 0 && !record.path.ended && (
							<Fold
								className="pt-1"
								line={
									<span className="text-small text-soft">
										{data.waiting.length} that could begin
									</span>
								}
							>
								{data.waiting.map((one) => (
									<p key={one.id} className="flex gap-3 py-1">
										<span>
											{one.name}
											<span className="under block">{one.begins}</span>
										</span>
										<Button
											kind="word"
											size="small"
											className="ml-auto"
											onClick={() => setBeginning(one)}
										>
											{one.variants.length > 0 && !one.again
												? "choose or begin"
												: "begin"}
											<span className="sr-only">: {one.name}</span>
										</Button>
									</p>
								))}
							</Fold>
						)}
					</div>
				)}
			</Shown>
			{beginning && (
				<Begin
					record={record}
					routine={beginning}
					onClose={() => setBeginning(undefined)}
				/>
			)}
		</Block>
	);
}
