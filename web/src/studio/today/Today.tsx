import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { answer, api } from "../../api/client";
import type { TodayDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Kbd } from "../../ui/Kbd";
import { ShownPage } from "../../ui/Shown";
import { beginInquiry } from "../beginInquiry";
import { FirstSteps } from "../first/FirstSteps";
import { MonthsMoney } from "./MonthsMoney";
import { ReadyToGoOut } from "./ReadyToGoOut";
import { TheDay } from "./TheDay";
import { YourTurn } from "./YourTurn";
/** The first look of the day. */
export function Today() {
	const today = useQuery({
		queryKey: ["over", "today"],
		queryFn: () => answer(api.GET("/api/today")),
	});
	useEffect(() => {
		document.title = "Today, Gesamt";
		// what is new stays marked for this look, and is seen at the next
		return () => {
			answer(api.POST("/api/today/looked")).catch(() => undefined);
		};
	}, []);
	return <ShownPage query={today}>{(data) => <Page today={data} />}</ShownPage>;
}

function Page({ today }: { today: TodayDto }) {
	return (
		<main className="px-5 pb-8">
			<div className="flex flex-wrap items-end gap-x-5 gap-y-1 pt-4 pb-3">
				<h1>{today.date}</h1>
				<Button onClick={() => beginInquiry()}>
					New inquiry <Kbd>i</Kbd>
				</Button>
				<MonthsMoney money={today.money} />
			</div>
			<FirstSteps steps={today.firstSteps} />
			<div className="grid gap-x-[18px] gap-y-7 lg:grid-cols-[1.12fr_1.1fr_0.84fr]">
				<YourTurn today={today} />
				<ReadyToGoOut today={today} />
				<TheDay today={today} />
			</div>
		</main>
	);
}
