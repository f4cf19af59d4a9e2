import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../../api/client";
import type {
	LeaveDto,
	PraiseDto,
	ProjectPraiseDto,
	RecordDto,
} from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Shown } from "../../ui/Shown";
import { useAct } from "../useAct";
import { Block } from "./Block";
import { KeepPraise } from "./KeepPraise";
import { NoteLeave } from "./NoteLeave";
import type { SheetActs } from "./Sheet";

/** Words that pleased, and what the client lets the studio make of them. */
export function Praise({
	record,
	acts,
}: {
	record: RecordDto;
	acts: SheetActs;
}) {
	const praise = usePraise(record.id);
	return (
		<Block title="Praise">
			<Shown query={praise}>
				{(data) => <Kept project={record.id} praise={data} acts={acts} />}
			</Shown>
		</Block>
	);
}

export const usePraise = (project: number) =>
	useQuery({
		queryKey: ["project", project, "praise"],
		queryFn: () =>
			answer(
				api.GET("/api/projects/{id}/praise", {
					params: { path: { id: project } },
				}),
			),
	});

function Kept({
	project,
	praise,
	acts,
}: {
	project: number;
	praise: ProjectPraiseDto;
	acts: SheetActs;
}) {
	const [keeping, setKeeping] = useState<PraiseDto | "new">();
	const [noting, setNoting] = useState(false);
	const act = useAct();
	return (
		<>
			{praise.kept.map((one) => (
				<figure key={one.id} className="py-1.5">
					<blockquote className="break-words whitespace-pre-line">
						“{one.words}”
					</blockquote>
					<figcaption className="under flex flex-wrap gap-x-3">
						<span>{one.said}</span>
						{one.opens && (
							<Button kind="word" onClick={() => acts.onOpen(one.opens ?? "")}>
								where it stands
							</Button>
						)}
						<Button kind="word" onClick={() => setKeeping(one)}>
							change
							<span className="sr-only">: {one.words.slice(0, 40)}</span>
						</Button>
					</figcaption>
				</figure>
			))}
			<Words praise={praise} />
			<dl className="text-[14.3px] empty:hidden">
				{praise.leaves
					.filter((leave) => leave.said)
					.map((leave) => (
						<LeaveLine key={leave.to} leave={leave} />
					))}
			</dl>
			<Refused of={act.refusal} />
			<div className="flex flex-wrap gap-2 pt-2">
				{praise.put ? (
					<Button
						disabled={act.busy}
						onClick={() =>
							act.run(() =>
								answer(
									api.POST("/api/projects/{id}/testimonial/back", {
										params: { path: { id: project } },
									}),
								),
							)
						}
					>
						Take the words back
					</Button>
				) : (
					<Button
						disabled={praise.waits !== null}
						onClick={() => acts.onWrite("testimonial")}
					>
						Ask to quote and to show
					</Button>
				)}
				<Button onClick={() => setKeeping("new")}>Keep praise</Button>
				<Button onClick={() => setNoting(true)}>Note a leave</Button>
			</div>
			{praise.waits && (
				<p className="under pt-1">Asking waits until {praise.waits}.</p>
			)}
			{keeping && (
				<KeepPraise
					key={keeping === "new" ? "new" : keeping.id}
					project={project}
					praise={keeping === "new" ? undefined : keeping}
					onClose={() => setKeeping(undefined)}
				/>
			)}
			{noting && (
				<NoteLeave
					project={project}
					leaves={praise.leaves}
					onClose={() => setNoting(false)}
				/>
			)}
		</>
	);
}

/** The words as they stand with the client, or were approved. */
function Words({ praise }: { praise: ProjectPraiseDto }) {
	const words = praise.put ?? praise.approved;
	if (!praise.state) return null;
	return (
		<figure className="border-l-4 border-ink py-1 pl-3">
			<figcaption className="under">To be quoted: {praise.state}</figcaption>
			{words?.words && (
				<>
					<blockquote className="break-words whitespace-pre-line">
						“{words.words}”
					</blockquote>
					<p className="under">{words.name}</p>
				</>
			)}
		</figure>
	);
}

function LeaveLine({ leave }: { leave: LeaveDto }) {
	return (
		<div className="flex gap-3 py-[3px]">
			<dt title={leave.wording}>
				{leave.to === "Quote" ? "Leave to quote" : "Leave to show"}
			</dt>
			<dd
				className={
					leave.state === "Given"
						? "ml-auto text-right"
						: "ml-auto text-right text-soft"
				}
			>
				{leave.said}
			</dd>
		</div>
	);
}
