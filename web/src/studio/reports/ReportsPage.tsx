import { useEffect } from "react";
import { Link } from "react-router";
import { Shown } from "../../ui/Shown";
import { Behind } from "./Behind";
import { ByMonth } from "./ByMonth";
import { Chased } from "./Chased";
import { Walked } from "./FigureButton";
import { Goals } from "./Goals";
import { HowFar } from "./HowFar";
import { HowLong } from "./HowLong";
import { ReportsHead } from "./ReportsHead";
import { useReports } from "./useReports";
import { WhatItBrought } from "./WhatItBrought";

/** Where inquiries go, how long that takes, who and what brings how much, and the goals of the year; every figure opens its projects. */
export default function ReportsPage() {
	const reports = useReports();
	useEffect(() => {
		document.title = "Reports, Gesamt";
	}, []);
	return (
		<main className="px-5 pb-8 max-md:px-4">
			<Shown
				query={reports.reports}
				usual={<Link to="/reports">Show the last three years</Link>}
			>
				{(data) => (
					<Walked.Provider value={!reports.pick.of}>
						<ReportsHead data={data} reports={reports} />
						<div className="grid items-start gap-x-[30px] gap-y-8 max-lg:grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1.28fr)_minmax(0,1fr)]">
							<HowFar data={data} reports={reports} />
							{/* what is opened takes the side, as everywhere */}
							{reports.pick.of ? (
								<Behind
									reports={reports}
									of={
										data.brought.rows.find(
											(row) => row.key === reports.pick.key,
										)?.name
									}
								/>
							) : (
								<HowLong data={data} reports={reports} />
							)}
							<div className="grid gap-y-8">
								<WhatItBrought data={data} reports={reports} />
								<Chased data={data} reports={reports} />
							</div>
							<Goals />
						</div>
						<ByMonth data={data} reports={reports} />
					</Walked.Provider>
				)}
			</Shown>
		</main>
	);
}
