import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../../api/client";
import type { StageChanceDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Shown } from "../../ui/Shown";
import { TextField } from "../../ui/TextField";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";

/** How likely a project of each stage is to be booked: as counted, or as the owner says. */
export function Chances({ onClose }: { onClose: () => void }) {
	const chances = useQuery({
		queryKey: ["over", "chances"],
		queryFn: () => answer(api.GET("/api/money/chances")),
	});
	return (
		<Window title="How likely" open onClose={onClose}>
			<p className="pb-3 text-soft">
				Of your own projects that came as far: how many were booked, with one
				more on either side, so that few of them promise little. What is likely
				is the open value of a project times this.
			</p>
			<Shown query={chances}>
				{(all) => (
					<ul className="grid gap-3">
						{all.map((one) => (
							<Stage key={one.stage} chance={one} />
						))}
					</ul>
				)}
			</Shown>
		</Window>
	);
}

function Stage({ chance }: { chance: StageChanceDto }) {
	const [own, setOwn] = useState(chance.own === null ? "" : `${chance.own}`);
	const act = useAct();
	const is = chance.own === null ? "" : `${chance.own}`;
	return (
		<li>
			<form
				className="grid grid-cols-[1fr_110px_auto] items-end gap-3"
				onSubmit={(event) => {
					event.preventDefault();
					void act.run(() =>
						answer(
							api.PUT("/api/money/chances/{stage}", {
								params: { path: { stage: chance.stage } },
								body: { percent: own },
							}),
						),
					);
				}}
			>
				<span>
					<b className="font-[650]">{chance.stage}</b>{" "}
					<span className="num">{chance.percent} %</span>
					<span className="under block">
						{chance.own === null || chance.own === undefined
							? `${chance.counted} were booked`
							: `as you say; ${chance.counted} were booked`}
					</span>
				</span>
				<TextField
					label={`Your own for ${chance.stage}, %`}
					hidden
					inputMode="numeric"
					placeholder="your own, %"
					value={own}
					wrong={act.refusal?.of("percent")}
					onChange={(e) => setOwn(e.target.value)}
				/>
				<Button type="submit" disabled={act.busy || own.trim() === is}>
					Keep
				</Button>
			</form>
			<Refused of={act.refusal} />
		</li>
	);
}
