import { useEffect, useState } from "react";
import { useSearchParams } from "react-router";
import { Button } from "../../ui/Button";
import { Kbd } from "../../ui/Kbd";
import { ShownPage } from "../../ui/Shown";
import { useKeys } from "../Keys";
import { useNarrow } from "../useNarrow";
import { useOpens } from "../useOpens";
import { Appointment } from "./Appointment";
import { Beside } from "./Beside";
import { Draggable } from "./Dragged";
import { MonthGrid } from "./MonthGrid";
import { MonthList } from "./MonthList";
import { Timetable } from "./Timetable";
import { usePrintFit } from "./usePrintFit";
import { useTaskKeys } from "./useTaskKeys";
import { useMonth, useWeek } from "./useWeek";
import { WeekHead } from "./WeekHead";
import { WeekList } from "./WeekList";

/** The owner's days: which work is done when, and how full each day is. */
export default function WeekPage() {
	const [search] = useSearchParams();
	useEffect(() => {
		document.title = "Week, Gesamt";
	}, []);
	return search.get("by") === "month" ? <Month /> : <Week />;
}

function Week() {
	const { week, go } = useWeek();
	const narrow = useNarrow();
	const [kept, setKept] = useState<number | "new">();
	const sheet = usePrintFit();
	useOpens("keep", () => setKept("new"));
	useKeys({
		"[": () => week.data && go({ day: week.data.around.last }),
		"]": () => week.data && go({ day: week.data.around.next }),
	});
	return (
		<ShownPage query={week}>
			{(data) => (
				<main className="pb-16 max-md:pb-4">
					<WeekHead
						title={data.title}
						load={data.load}
						around={data.around}
						step="week"
						onGo={go}
					>
						<Button kind="word" onClick={() => setKept("new")}>
							keep a time
						</Button>
					</WeekHead>
					{narrow ? (
						<>
							<WeekList week={data} onOpen={setKept} />
							<div className="px-4 pt-6">
								<Beside week={data} onGo={go} />
							</div>
						</>
					) : (
						<Days>
							<div ref={sheet} className="min-w-0">
								<Timetable week={data} onOpen={setKept} />
							</div>
							<Beside week={data} onGo={go} />
						</Days>
					)}
					{kept && (
						<Appointment
							id={kept === "new" ? undefined : kept}
							onClose={() => setKept(undefined)}
						/>
					)}
				</main>
			)}
		</ShownPage>
	);
}

/** The days and what has none: tasks are walked and moved between them. */
function Days({ children }: { children: React.ReactNode }) {
	const keys = useTaskKeys();
	return (
		<>
			<Draggable>
				<div
					className="grid grid-cols-[minmax(0,1fr)_250px] items-start gap-3 px-5 max-lg:grid-cols-1 print:block print:px-0"
					{...keys.on}
				>
					{children}
				</div>
			</Draggable>
			{keys.window}
			<Foot />
		</>
	);
}

/** What the keys do, along the lower edge. */
function Foot() {
	return (
		<footer className="fixed inset-x-0 bottom-0 flex flex-wrap items-center gap-x-6 border-t border-hair bg-sheet px-5 py-2.5 text-[14px] text-soft max-lg:hidden print:hidden">
			{feet.map(([keys, does]) => (
				<span key={does}>
					{keys.map((key) => (
						<Kbd key={key}>{key}</Kbd>
					))}{" "}
					{does}
				</span>
			))}
			<span className="ml-auto">
				Drag works too. A due date stays; the day you work on it is yours to
				choose.
			</span>
		</footer>
	);
}

const feet: [string[], string][] = [
	[["←", "→", "↑", "↓"], "walk"],
	[["h", "l"], "a day earlier, later"],
	[["x"], "done"],
	[["e"], "how long"],
	[["Enter"], "open"],
];

function Month() {
	const { month, go } = useMonth();
	const narrow = useNarrow();
	const sheet = usePrintFit();
	useKeys({
		"[": () => month.data && go({ day: month.data.around.last }),
		"]": () => month.data && go({ day: month.data.around.next }),
	});
	return (
		<ShownPage query={month}>
			{(data) => (
				<main className="pb-8">
					<WeekHead
						title={data.title}
						load={data.load}
						around={data.around}
						step="month"
						onGo={go}
					/>
					{narrow ? (
						<MonthList month={data} />
					) : (
						<div ref={sheet} className="px-5 print:px-0">
							<MonthGrid month={data} />
						</div>
					)}
				</main>
			)}
		</ShownPage>
	);
}
