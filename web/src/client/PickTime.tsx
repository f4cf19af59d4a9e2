import { useCallback, useEffect, useState } from "react";
import { answer, api } from "../api/client";
import type { Refusal } from "../api/refusal";
import type { TimesDto } from "../api/schema";
import { Alert } from "../ui/Alert";
import { Button } from "../ui/Button";
import { Choice, Choices } from "../ui/Choice";
import { Refused } from "../ui/Refused";
import { Select } from "../ui/Select";
import { TextArea } from "../ui/TextArea";

const zones = () => {
	const own = Intl.DateTimeFormat().resolvedOptions().timeZone;
	const all = Intl.supportedValuesOf("timeZone");
	return { own, all: all.includes(own) ? all : [own, ...all] };
};

const daysAtOnce = 5;

/** Times to choose from, in the visitor's own zone. */
export default function PickTime({
	link,
	moving,
	onDone,
}: {
	link: string;
	/** The meeting that is to be moved. */
	moving?: string;
	onDone: () => Promise<void>;
}) {
	const known = useState(zones)[0];
	const [zone, setZone] = useState(known.own);
	const [times, setTimes] = useState<TimesDto>();
	const [refusal, setRefusal] = useState<Refusal>();
	const [start, setStart] = useState("");
	const [answers, setAnswers] = useState<string[]>([]);
	const [busy, setBusy] = useState(false);
	const [shown, setShown] = useState(daysAtOnce);
	const load = useCallback(async () => {
		try {
			setTimes(
				await answer(
					api.GET("/p/{link}/api/times", {
						params: { path: { link }, query: { zone, moving } },
					}),
				),
			);
		} catch (error) {
			setRefusal(error as Refusal);
		}
	}, [link, zone, moving]);
	useEffect(() => {
		load();
	}, [load]);

	async function take() {
		setBusy(true);
		setRefusal(undefined);
		try {
			if (moving)
				await answer(
					api.POST("/p/{link}/api/meetings/{meeting}/move", {
						params: { path: { link, meeting: moving } },
						body: { start },
					}),
				);
			else
				await answer(
					api.POST("/p/{link}/api/times", {
						params: { path: { link } },
						body: { start, zone, answers },
					}),
				);
			await onDone();
		} catch (error) {
			setRefusal(error as Refusal);
			setStart("");
			await load();
		} finally {
			setBusy(false);
		}
	}
	if (!times) return refusal ? <Alert>{refusal.message}</Alert> : null;
	const chosen = times.days
		.flatMap((day) => day.times.map((time) => ({ ...time, day: day.day })))
		.find((time) => time.start === start);
	return (
		<section aria-label="Choose a time" className="max-w-2xl">
			<h2 className="text-[20px]">
				{moving ? "Choose another time" : `Choose a time: ${times.name}`}
			</h2>
			<p className="pt-1">
				{times.minutes} minutes, {times.place}.{" "}
				{times.studioZone &&
					`These are times in your zone; the studio is in ${times.studioZone}.`}
			</p>
			{times.agenda && !moving && (
				<p className="pt-2 text-soft">{times.agenda}</p>
			)}
			<div className="max-w-xs py-4">
				<Select
					label="Your time zone"
					value={zone}
					onChange={(e) => setZone(e.target.value)}
				>
					{known.all.map((one) => (
						<option key={one}>{one}</option>
					))}
				</Select>
			</div>
			<Refused of={refusal} />
			{times.days.length === 0 && (
				<p className="bg-plaster p-4">
					No time is open at the moment. Answer the letter that brought you
					here, and we find one.
				</p>
			)}
			<div className="border-t border-hair">
				{times.days.slice(0, shown).map((day) => (
					<div
						key={day.day}
						className="grid gap-x-3 gap-y-1.5 border-b border-hair py-2.5 sm:grid-cols-[110px_1fr]"
					>
						<span className="pt-1 font-head font-semibold" aria-hidden="true">
							{day.day}
						</span>
						<Choices
							label={day.day}
							hidden
							className="flex flex-wrap gap-2"
							value={start}
							onChange={setStart}
						>
							{day.times.map((time) => (
								<Choice
									key={time.start}
									chip
									value={time.start}
									name={`${day.day}, ${time.words}`}
								>
									{time.words}
								</Choice>
							))}
						</Choices>
					</div>
				))}
			</div>
			{times.days.length > shown && (
				<p className="pt-3">
					<Button kind="word" onClick={() => setShown(shown + daysAtOnce)}>
						Show later days
					</Button>
				</p>
			)}
			{!moving && start && (
				<div className="grid gap-3 pt-4">
					{times.questions.map((question, i) => (
						<TextArea
							key={question}
							label={`${question} (if you like)`}
							rows={2}
							value={answers[i] ?? ""}
							onChange={(e) => {
								const next = times.questions.map((_, at) => answers[at] ?? "");
								next[i] = e.target.value;
								setAnswers(next);
							}}
						/>
					))}
				</div>
			)}
			<div className="sticky bottom-0 bg-sheet py-3">
				<Button kind="brand" disabled={!chosen || busy} onClick={take}>
					{chosen
						? `Take ${chosen.day}, ${chosen.words}`
						: "Choose a time above"}
				</Button>
			</div>
		</section>
	);
}
