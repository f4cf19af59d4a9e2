import type { ReactNode } from "react";
import type { RecordDto } from "../../api/schema";
import { AmountRow } from "../../ui/AmountRow";
import { useTaskDone } from "../useTaskDone";

/** The standing details beside the line. */
export function Sheet({ record }: { record: RecordDto }) {
	const done = useTaskDone(record.id);
	return (
		<div className="panel px-4 py-0.5">
			{record.money && (
				<Block title="Money">
					<div
						className="my-2 flex h-3.5 border-[1.5px] border-ink"
						role="img"
						aria-label={`${record.money.paidShare} per cent of the agreed price is paid`}
					>
						<span
							className="bg-ink"
							style={{ width: `${record.money.paidShare}%` }}
						/>
						<span className="flex-1 bg-[repeating-linear-gradient(135deg,var(--hatch)_0_1.5px,transparent_1.5px_5px)]" />
					</div>
					<dl className="text-[14.3px]">
						{record.money.lines.map((line, i) => (
							<AmountRow
								key={`${line.label}${i}`}
								label={line.label}
								amount={line.amount}
							/>
						))}
					</dl>
				</Block>
			)}
			{record.tasks.length > 0 && (
				<Block title="Open tasks">
					{record.tasks.map((task) => (
						<label
							key={task.id}
							className="flex gap-2.5 py-[3px] text-[14.3px]"
						>
							<input
								type="checkbox"
								className="mt-1 size-3.5 accent-(--ink)"
								onChange={() => done(task.id, task.title)}
							/>
							<span>{task.title}</span>
							<span
								className={`ml-auto whitespace-nowrap ${task.late ? "font-[650]" : "text-soft"}`}
							>
								{task.due}
							</span>
						</label>
					))}
				</Block>
			)}
			<Block title="People">
				<p className="text-[14.3px]">
					<b className="font-[650]">{record.client.name}</b>
					{record.client.organisation && `, ${record.client.organisation}`}
				</p>
				<p className="text-[14.3px] break-all text-soft">
					{[record.client.mail, record.client.phone].filter(Boolean).join(", ")}
				</p>
				{record.source && (
					<p className="under pt-1">found you by {record.source}</p>
				)}
			</Block>
			{record.papers.length > 0 && (
				<Block title="At hand">
					{record.papers.map((paper) => (
						<p key={paper.address} className="py-[2.5px] text-[14.3px]">
							<a className="link" href={paper.address}>
								{paper.name}
							</a>{" "}
							<span className="text-soft">PDF</span>
						</p>
					))}
				</Block>
			)}
			{record.brief.length > 0 && (
				<Block title="The inquiry">
					<dl className="text-[14.3px]">
						{record.brief.map((answer) => (
							<div key={answer.question} className="pt-1.5">
								<dt className="under">{answer.question}</dt>
								<dd className="whitespace-pre-line">{answer.text}</dd>
							</div>
						))}
					</dl>
				</Block>
			)}
		</div>
	);
}

function Block({ title, children }: { title: string; children: ReactNode }) {
	return (
		<section className="border-b border-hair py-3 last:border-0">
			<h2 className="pb-0.5 text-[15px]">{title}</h2>
			{children}
		</section>
	);
}
