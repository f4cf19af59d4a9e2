import type {
	Gate,
	KindPathDto,
	MilestoneSign,
	WinRule,
} from "../../api/schema";
import { Button } from "../../ui/Button";
import { CountField } from "../../ui/CountField";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import type { KindPart } from "./KindSettings";

const signs: Record<MilestoneSign, string> = {
	CallHeld: "when a call or meeting was held",
	BriefApproved: "when the brief is approved",
	FormReturned: "when a form comes back",
	DraftApproved: "when a draft is approved",
	Said: "when I say so",
};

const wins: Record<WinRule, string> = {
	Both: "signature and booking payment",
	Signature: "the signature alone",
	Payment: "the booking payment alone",
};

/** The gates of a kind in its own words, its own steps inside them, and what makes a project booked. */
export function KindPath({ said, wrong, set }: KindPart) {
	const { path } = said;
	const change = (part: Partial<KindPathDto>) =>
		set({ path: { ...path, ...part } });
	return (
		<div className="grid gap-5">
			<fieldset>
				<legend className="label">Gates, and what you call them</legend>
				<ul className="grid gap-2 md:grid-cols-5">
					{path.gates.map((gate, i) => {
						const put = (part: Partial<typeof gate>) =>
							change({
								gates: path.gates.map((one, at) =>
									at === i ? { ...one, ...part } : one,
								),
							});
						return (
							<li key={gate.gate} className="grid content-start gap-1">
								<TextField
									label={gate.gate}
									placeholder={gate.gate}
									value={gate.name}
									wrong={wrong(`path.gates[${i}].name`)}
									onChange={(e) => put({ name: e.target.value })}
								/>
								{gate.gate !== "Lead" && gate.gate !== "Delivery" && (
									<Tick
										label="is a gate"
										checked={gate.has}
										onChange={(has) => put({ has })}
									/>
								)}
							</li>
						);
					})}
				</ul>
				{wrong("path.gates") && <p className="wrong">{wrong("path.gates")}</p>}
			</fieldset>
			<Milestones said={said} wrong={wrong} set={set} />
			<div className="grid gap-3 md:grid-cols-4">
				<Select
					label="Booked by"
					value={path.win}
					wrong={wrong("path.win")}
					onChange={(e) => change({ win: e.target.value as WinRule })}
				>
					{Object.entries(wins).map(([value, words]) => (
						<option key={value} value={value}>
							{words}
						</option>
					))}
				</Select>
				<CountField
					label="Booking payment due after"
					hint="days from the signature"
					min={0}
					value={path.bookingDays}
					wrong={wrong("path.bookingDays")}
					onChange={(count) => change({ bookingDays: count ?? 0 })}
				/>
				<CountField
					label="Waits from"
					hint="days on, in Turns"
					min={1}
					value={path.waiting}
					wrong={wrong("path.waiting")}
					onChange={(count) => change({ waiting: count ?? 0 })}
				/>
				<CountField
					label="Waits long from"
					hint="days on"
					min={2}
					value={path.old}
					wrong={wrong("path.old")}
					onChange={(count) => change({ old: count ?? 0 })}
				/>
			</div>
		</div>
	);
}

function Milestones({ said, wrong, set }: KindPart) {
	const { path } = said;
	const put = (milestones: KindPathDto["milestones"]) =>
		set({ path: { ...path, milestones } });
	const change = (at: number, part: Partial<(typeof path.milestones)[0]>) =>
		put(
			path.milestones.map((one, i) => (i === at ? { ...one, ...part } : one)),
		);
	return (
		<fieldset>
			<legend className="label">
				Steps of your own inside a gate, seen on the way
			</legend>
			<ul className="grid gap-2">
				{path.milestones.map((one, i) => (
					<li
						key={i}
						aria-label={one.name || "New step"}
						className="grid gap-2 md:grid-cols-[1fr_160px_1fr_auto]"
					>
						<TextField
							label="Step"
							placeholder="proof printed"
							value={one.name}
							wrong={wrong(`path.milestones[${i}].name`)}
							onChange={(e) => change(i, { name: e.target.value })}
						/>
						<Select
							label="Inside"
							value={one.gate}
							wrong={wrong(`path.milestones[${i}].gate`)}
							onChange={(e) => change(i, { gate: e.target.value as Gate })}
						>
							{path.gates
								.filter((gate) => gate.has)
								.map((gate) => (
									<option key={gate.gate} value={gate.gate}>
										{gate.name || gate.gate}
									</option>
								))}
						</Select>
						<Select
							label="Reached"
							value={one.by}
							onChange={(e) =>
								change(i, { by: e.target.value as MilestoneSign })
							}
						>
							{Object.entries(signs).map(([value, words]) => (
								<option key={value} value={value}>
									{words}
								</option>
							))}
						</Select>
						<Button
							kind="word"
							size="small"
							className="self-end pb-2"
							onClick={() => put(path.milestones.filter((_, at) => at !== i))}
						>
							take out<span className="sr-only">: {one.name}</span>
						</Button>
					</li>
				))}
			</ul>
			<Button
				className="mt-2"
				onClick={() =>
					put([...path.milestones, { name: "", gate: "Delivery", by: "Said" }])
				}
			>
				Add a step
			</Button>
		</fieldset>
	);
}
