import { useQuery } from "@tanstack/react-query";
import { useContext, useState } from "react";
import { answer, api } from "../../api/client";
import type { GoalDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Select } from "../../ui/Select";
import { Shown } from "../../ui/Shown";
import { EditGoal } from "./EditGoal";
import { Walked } from "./FigureButton";

/** What is to be reached in a year, and how far that is. */
export function Goals() {
	const [year, setYear] = useState<number>();
	const [opened, setOpened] = useState<GoalDto | "new">();
	const goals = useQuery({
		queryKey: ["over", "goals", year],
		queryFn: () =>
			answer(api.GET("/api/goals", { params: { query: { year } } })),
		placeholderData: (before) => before,
	});
	return (
		<Shown query={goals}>
			{(data) => (
				<section aria-labelledby="goals">
					<div className="flex flex-wrap items-baseline gap-x-2.5">
						<h2 id="goals">Goals of {data.year}</h2>
						<span className="num text-soft">{data.goals.length || ""}</span>
						<span className="ml-auto flex items-baseline gap-3 print:hidden">
							{data.goals.length > 0 && (
								<Button asChild kind="word">
									<a href={`/api/goals.csv?year=${data.year}`} download>
										as a table (CSV)
									</a>
								</Button>
							)}
							<Button kind="word" onClick={() => setOpened("new")}>
								set a goal
							</Button>
							<Select
								label="Goals of which year"
								hidden
								bare
								value={data.year}
								onChange={(e) => setYear(Number(e.target.value))}
							>
								{[...new Set([data.years[0] ?? data.year, ...data.years])].map(
									(one) => (
										<option key={one}>{one}</option>
									),
								)}
							</Select>
						</span>
					</div>
					<div className="rule" />
					{data.goals.length === 0 && (
						<p className="py-3 text-soft">
							What do you want of this year? A goal has one or several measures,
							which you type or which count by themselves.
						</p>
					)}
					<ul>
						{data.goals.map((goal) => (
							<Goal
								key={goal.id}
								goal={goal}
								elapsed={data.elapsed}
								onOpen={() => setOpened(goal)}
							/>
						))}
					</ul>
					{data.goals.length > 0 && data.elapsed > 0 && data.elapsed < 1 && (
						<p className="pt-2 text-[13px] text-soft">
							The mark is today: so much of the year has passed.
						</p>
					)}
					{opened && (
						<EditGoal
							goal={opened === "new" ? undefined : opened}
							year={data.year}
							figures={data.figures}
							onClose={() => setOpened(undefined)}
						/>
					)}
				</section>
			)}
		</Shown>
	);
}

function Goal({
	goal,
	elapsed,
	onOpen,
}: {
	goal: GoalDto;
	elapsed: number;
	onOpen: () => void;
}) {
	const walked = useContext(Walked);
	return (
		<li className="grid grid-cols-[minmax(0,1fr)_180px_50px] items-center gap-x-4 border-b border-hair py-2 max-md:grid-cols-[minmax(0,1fr)_90px_50px]">
			<span className="min-w-0">
				<Button
					kind="line"
					className="min-h-6 text-left"
					data-walk={walked || undefined}
					onClick={onOpen}
				>
					<span className="wrap-anywhere">{goal.title}</span>
				</Button>
				<span className="under block wrap-anywhere">
					{goal.under}
					{goal.measures.length > 1 && (
						<>
							:{" "}
							{goal.measures
								.map((one) => `${one.told} ${one.words}, ${one.percent}\u00a0%`)
								.join("; ")}
						</>
					)}
				</span>
			</span>
			<svg aria-hidden width="100%" height="18" className="block">
				<rect
					x="0.5"
					y="4.5"
					width="99%"
					height="9"
					className="fill-sheet stroke-ink"
				/>
				<rect
					x="0.5"
					y="4.5"
					width={`${0.99 * goal.percent}%`}
					height="9"
					className="fill-ink"
				/>
				{elapsed > 0 && elapsed < 1 && (
					<line
						x1={`${99 * elapsed}%`}
						x2={`${99 * elapsed}%`}
						y1="0"
						y2="18"
						className="stroke-(--date) stroke-2"
					/>
				)}
			</svg>
			<span className="num text-right">{goal.percent} %</span>
		</li>
	);
}
