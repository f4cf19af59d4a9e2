import { useQuery } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { Link } from "react-router";
import { answer, api } from "../../api/client";
import type { CostDto, HoursDto, RecordDto, SpentDto } from "../../api/schema";
import { AmountRow } from "../../ui/AmountRow";
import { Button } from "../../ui/Button";
import { Fold } from "../../ui/Fold";
import { Shown } from "../../ui/Shown";
import { useClock } from "../useClock";
import { Block } from "./Block";
import { KeepCost } from "./KeepCost";
import { AddHours, ChangeHours } from "./KeepHours";
import { KeepQuote, Quotes } from "./Quotes";

const most = 5;

/** The hours and costs that a project took, and what of them is not charged yet. */
export function Spent({ record }: { record: RecordDto }) {
	const spent = useQuery({
		queryKey: ["project", record.id, "spent"],
		queryFn: () =>
			answer(
				api.GET("/api/projects/{id}/spent", {
					params: { path: { id: record.id } },
				}),
			),
	});
	return (
		<Block title="Hours and costs">
			<Shown query={spent}>
				{(data) => <Kept record={record} spent={data} />}
			</Shown>
		</Block>
	);
}

function Kept({ record, spent }: { record: RecordDto; spent: SpentDto }) {
	const project = record.id;
	const tasks = record.sheet.tasks.open;
	const clock = useClock();
	const [changing, setChanging] = useState<HoursDto>();
	const [quoting, setQuoting] = useState(false);
	const [cost, setCost] = useState<CostDto | "new">();
	const { sums } = spent;
	return (
		<>
			<dl className="text-[14.3px]">
				{sums.hours && <AmountRow label="Worked" amount={sums.hours} />}
				{sums.hoursFree && sums.hoursFree !== sums.hours && (
					<AmountRow label="not charged" amount={sums.hoursFree} quiet />
				)}
				{spent.earns && (
					<AmountRow label="An hour earns so far" amount={spent.earns.soFar} />
				)}
				{spent.earns?.forecast && (
					<AmountRow
						label="with what is still to do"
						amount={spent.earns.forecast}
						quiet
					/>
				)}
				{sums.costs && <AmountRow label="Costs" amount={sums.costs} />}
				{sums.costsFree && (
					<AmountRow label="to charge on" amount={sums.costsFree} quiet />
				)}
			</dl>
			<Rows
				all={spent.hours.map((one) => (
					<Row
						key={one.id}
						day={one.day}
						words={one.words || one.task?.title || "work"}
						figure={one.time}
						under={[one.words && one.task?.title, one.charged]
							.filter(Boolean)
							.join("; ")}
						onChange={() => setChanging(one)}
					/>
				))}
			/>
			{!spent.hoursOff && <AddHours project={project} tasks={tasks} />}
			<div className="h-2" />
			<Rows
				all={spent.costs.map((one) => (
					<Row
						key={one.id}
						day={one.day}
						words={one.what}
						figure={one.said}
						under={one.charged ?? (one.chargeOn ? "to charge on" : null)}
						onChange={() => setCost(one)}
					>
						{one.receipt && (
							<Button asChild kind="word">
								<a href={`/api/projects/${project}/costs/${one.id}/receipt`}>
									receipt<span className="sr-only"> of {one.what}</span>
								</a>
							</Button>
						)}
					</Row>
				))}
			/>
			<Quotes project={project} spent={spent} />
			<p className="flex flex-wrap gap-2 pt-2">
				{clock.can && clock.data?.runs?.project !== project && (
					<Button
						size="small"
						disabled={clock.busy}
						onClick={() => clock.start(project)}
					>
						Start the clock
					</Button>
				)}
				<Button size="small" onClick={() => setCost("new")}>
					Keep a cost
				</Button>
				<Button size="small" onClick={() => setQuoting(true)}>
					Keep a quote
				</Button>
				{(sums.hoursFree || sums.costsFree) && (
					<Button asChild size="small">
						<Link to={`/projects/${project}/bill?kept`}>
							Charge them on an invoice
						</Link>
					</Button>
				)}
			</p>
			{changing && (
				<ChangeHours
					key={changing.id}
					project={project}
					tasks={tasks}
					hours={changing}
					onClose={() => setChanging(undefined)}
				/>
			)}
			{quoting && (
				<KeepQuote
					project={project}
					tax={spent.usual.tax}
					onClose={() => setQuoting(false)}
				/>
			)}
			{cost && (
				<KeepCost
					project={project}
					spent={spent}
					cost={cost === "new" ? undefined : cost}
					onClose={() => setCost(undefined)}
				/>
			)}
		</>
	);
}

/** The last few; those before them on demand. */
function Rows({ all }: { all: ReactNode[] }) {
	return (
		<>
			{all.slice(0, most)}
			{all.length > most && (
				<Fold className="text-soft" line={`${all.length - most} before`}>
					{all.slice(most)}
				</Fold>
			)}
		</>
	);
}

function Row({
	day,
	words,
	figure,
	under,
	onChange,
	children,
}: {
	day: string;
	words: string;
	figure: string;
	under: string | null | undefined;
	onChange: () => void;
	children?: ReactNode;
}) {
	return (
		<div className="flex gap-2.5 py-[3px] text-[14.3px]">
			<span className="w-24 shrink-0 text-soft">{day}</span>
			<span className="min-w-0 flex-1">
				<Button
					kind="line"
					className="text-left break-words hover:underline"
					onClick={onChange}
				>
					{words}
				</Button>
				{(under || children) && (
					<span className="under flex gap-2">
						{under}
						{children}
					</span>
				)}
			</span>
			<span className="num whitespace-nowrap">{figure}</span>
		</div>
	);
}
