import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../../api/client";
import type { RunSheetDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Choice, Choices } from "../../ui/Choice";
import { Refused } from "../../ui/Refused";
import { Shown } from "../../ui/Shown";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";

/** Lays a kept run sheet on the project's date: its days with weekdays and dates are shown before. */
export function LaySheet({
	project,
	edition,
	onLaid,
	onClose,
}: {
	project: number;
	edition: number;
	onLaid: (sheet: RunSheetDto) => void;
	onClose: () => void;
}) {
	const params = { path: { id: project } };
	const sheets = useQuery({
		queryKey: ["project", project, "run-sheet-templates"],
		queryFn: () =>
			answer(api.GET("/api/projects/{id}/run-sheet/templates", { params })),
	});
	const [key, setKey] = useState<string>();
	const act = useAct();
	const lay = () =>
		act.run(async () => {
			onLaid(
				await answer(
					api.POST("/api/projects/{id}/run-sheet/lay", {
						params,
						body: { key: key ?? "", edition },
					}),
				),
			);
			onClose();
		});
	return (
		<Window title="Lay a run sheet on this date" open wide onClose={onClose}>
			<Shown query={sheets}>
				{(data) => {
					const chosen = data.find((one) => one.key === key);
					return (
						<div className="grid gap-3">
							{data.length === 0 && (
								<p className="text-soft">
									None is kept yet. Write one under Templates, or keep the one
									of a project to lay it again.
								</p>
							)}
							{data.length > 0 && (
								<Choices label="Which one" value={key} onChange={setKey}>
									{data.map((one) => (
										<Choice key={one.key} value={one.key}>
											{one.name}
										</Choice>
									))}
								</Choices>
							)}
							{chosen?.days.map((day) => (
								<section key={day.words} aria-label={day.words}>
									<h3 className="rule pb-0.5">{day.words}</h3>
									{day.lines.length === 0 && (
										<p className="text-soft">Nothing on this day.</p>
									)}
									{day.lines.map((line, at) => (
										<p key={at} className="flex gap-3 py-0.5">
											<span className="num w-14 shrink-0">{line.time}</span>
											<span>{line.what}</span>
										</p>
									))}
								</section>
							))}
							<Refused of={act.refusal} />
							<div>
								<Button kind="go" disabled={!chosen || act.busy} onClick={lay}>
									{chosen
										? `Take over ${chosen.days.length} day${chosen.days.length === 1 ? "" : "s"}`
										: "Take it over"}
								</Button>
							</div>
						</div>
					);
				}}
			</Shown>
		</Window>
	);
}
