import { useEffect, useState } from "react";
import { Link, useLocation } from "react-router";
import { answer, api } from "../api/client";
import type { ClockAskedDto } from "../api/schema";
import { Button } from "../ui/Button";
import { Refused } from "../ui/Refused";
import { TextField } from "../ui/TextField";
import { Window } from "../ui/Window";
import { useKeys } from "./Keys";
import { useAct } from "./useAct";
import { useClock } from "./useClock";

/** The one clock, while it runs or asks: what for, how long, and a way to stop it. */
export function ClockInBar() {
	const clock = useClock();
	const [asking, setAsking] = useState<number>();
	const minutes = useMinutes(clock.data?.runs?.minutes ?? 0, clock.at);
	const { runs, asked = [] } = clock.data ?? {};
	const here = useLocation().pathname.match(/^\/projects\/(\d+)/)?.[1];
	useKeys({
		c: () => {
			if (here && runs?.project !== Number(here)) clock.start(Number(here));
			else if (runs) clock.stop();
		},
	});
	if (!runs && asked.length === 0) return null;
	const asks = asked.find((one) => one.id === asking);
	return (
		<section
			aria-label="The clock"
			className="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-hair bg-sheet px-5 py-1.5 text-[14.3px] max-md:px-4 print:hidden"
		>
			{runs && (
				<>
					<b className="num font-[650]">
						{Math.floor(minutes / 60)}:{String(minutes % 60).padStart(2, "0")}
					</b>
					<span className="min-w-0 break-words">
						<Link to={`/projects/${runs.project}`}>{runs.projectTitle}</Link>
						{runs.what && `, ${runs.what}`}
						<span className="text-soft"> since {runs.since}</span>
					</span>
					<Button size="small" disabled={clock.busy} onClick={clock.stop}>
						Stop the clock
					</Button>
				</>
			)}
			{asked.map((one) => (
				<span key={one.id} className="min-w-0 break-words">
					The clock ran for {one.projectTitle}: {one.ran}.{" "}
					<Button kind="word" onClick={() => setAsking(one.id)}>
						Say how long you worked
					</Button>
				</span>
			))}
			{asks && (
				<SayHowLong
					key={asks.id}
					asked={asks}
					onKept={clock.tell}
					onClose={() => setAsking(undefined)}
				/>
			)}
		</section>
	);
}

/** Counts on from what the server said, by the browser's own clock. */
function useMinutes(said: number, at: number) {
	const [now, setNow] = useState(Date.now());
	useEffect(() => {
		const timer = setInterval(() => setNow(Date.now()), 15_000);
		return () => clearInterval(timer);
	}, []);
	return said + Math.max(0, Math.floor((now - at) / 60_000));
}

function SayHowLong({
	asked,
	onKept,
	onClose,
}: {
	asked: ClockAskedDto;
	onKept: ReturnType<typeof useClock>["tell"];
	onClose: () => void;
}) {
	const [time, setTime] = useState("");
	const act = useAct();
	const say = async (drop: boolean) => {
		const kept = await act.run(async () =>
			onKept(
				await answer(
					api.POST("/api/work-clock/{id}/answer", {
						params: { path: { id: asked.id } },
						body: { time, drop },
					}),
				),
			),
		);
		if (kept) onClose();
	};
	return (
		<Window title="How long did you work?" open onClose={onClose}>
			<form
				className="grid gap-3"
				onSubmit={(event) => {
					event.preventDefault();
					say(false);
				}}
			>
				<p>
					{[asked.projectTitle, asked.what].filter(Boolean).join(", ")}: the
					clock ran for {asked.ran}.
				</p>
				<TextField
					label="Time worked"
					hint="2.5, 1:30 or 90 min; left empty, all of it"
					value={time}
					wrong={act.refusal?.of("time")}
					onChange={(e) => setTime(e.target.value)}
				/>
				<Refused of={act.refusal} />
				<div className="flex gap-2">
					<Button kind="go" type="submit" disabled={act.busy}>
						{time.trim() ? "Keep that" : "Keep all of it"}
					</Button>
					<Button
						className="ml-auto"
						disabled={act.busy}
						onClick={() => say(true)}
					>
						I did not work
					</Button>
				</div>
			</form>
		</Window>
	);
}
