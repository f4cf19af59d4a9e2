import type { KindWorkDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { CountField } from "../../ui/CountField";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { CancelTerms } from "./CancelTerms";
import type { KindPart } from "./KindSettings";

/** Phases with their usual lengths, rounds of review, and what closes a project. */
export function KindWork({ said, wrong, set }: KindPart) {
	const { work } = said;
	const change = (part: Partial<KindWorkDto>) =>
		set({ work: { ...work, ...part } });
	const put = (at: number, part: Partial<KindWorkDto["phases"][0]>) =>
		change({
			phases: work.phases.map((one, i) =>
				i === at ? { ...one, ...part } : one,
			),
		});
	function move(at: number) {
		const phases = [...work.phases];
		const [moved] = phases.splice(at, 1);
		phases.splice(at - 1, 0, moved!);
		change({ phases });
	}
	return (
		<div className="grid gap-5">
			<fieldset>
				<legend className="label">Phases, in their order</legend>
				<ul className="grid gap-2">
					{work.phases.map((phase, i) => (
						<li
							key={i}
							aria-label={phase.name || "New phase"}
							className="grid grid-cols-[1fr_110px] gap-2 md:grid-cols-[minmax(0,320px)_110px_auto]"
						>
							<TextField
								label="Phase"
								value={phase.name}
								wrong={wrong(`work.phases[${i}].name`)}
								onChange={(e) => put(i, { name: e.target.value })}
							/>
							<CountField
								label="Usual days"
								min={1}
								value={phase.days}
								wrong={wrong(`work.phases[${i}].days`)}
								onChange={(days) => put(i, { days })}
							/>
							<span className="flex items-end gap-3 pb-2">
								{i > 0 && (
									<Button kind="word" size="small" onClick={() => move(i)}>
										up<span className="sr-only">: {phase.name}</span>
									</Button>
								)}
								<Button
									kind="word"
									size="small"
									onClick={() =>
										change({
											phases: work.phases.filter((_, at) => at !== i),
										})
									}
								>
									take out<span className="sr-only">: {phase.name}</span>
								</Button>
							</span>
						</li>
					))}
				</ul>
				<Button
					className="mt-2"
					onClick={() =>
						change({ phases: [...work.phases, { name: "", days: null }] })
					}
				>
					Add a phase
				</Button>
			</fieldset>
			<CancelTerms said={work} wrong={wrong} change={change} />
			<div className="grid gap-3 md:grid-cols-2">
				<CountField
					label="Rounds of review included in the price"
					min={0}
					value={work.rounds}
					wrong={wrong("work.rounds")}
					onChange={(count) => change({ rounds: count ?? 0 })}
				/>
				<TextArea
					label="Done before a project is finished, one a line"
					rows={3}
					value={work.closingSteps.join("\n")}
					wrong={wrong("work.closingSteps")}
					onChange={(e) => change({ closingSteps: e.target.value.split("\n") })}
				/>
				<Tick
					label="Final files wait for the last payment"
					checked={work.finalsWait}
					onChange={(finalsWait) => change({ finalsWait })}
				/>
				<Tick
					label="A letter of progress says how long was worked"
					checked={work.tellsHours}
					onChange={(tellsHours) => change({ tellsHours })}
				/>
				<CountField
					label="Guests are told, minutes before the true start"
					min={0}
					max={240}
					value={work.guestsEarlier}
					wrong={wrong("work.guestsEarlier")}
					onChange={(minutes) => change({ guestsEarlier: minutes ?? 0 })}
				/>
				<CountField
					label="Hours that its first week takes, 10 where nothing is said"
					min={1}
					max={168}
					value={work.firstWeekHours ?? null}
					wrong={wrong("work.firstWeekHours")}
					onChange={(firstWeekHours) => change({ firstWeekHours })}
				/>
			</div>
		</div>
	);
}
