import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import type { RecordDto } from "../../api/schema";
import { get, post } from "../../ui/http";
import { Shown } from "../../ui/Shown";
import { useKeys } from "../Keys";
import { Matches } from "../people/Matches";
import { useAct } from "../useAct";
import { AskForm } from "./AskForms";
import { PutBrief } from "./Brief";
import { KeepFiles } from "./Files";
import { Gates } from "./Gates";
import { HandOver } from "./HandOver";
import { LetterEditor } from "./LetterEditor";
import { Line } from "./Line";
import { OfferMeeting } from "./Meetings";
import { MoveDate } from "./MoveDate";
import { PutUp } from "./PutUp";
import { Reader } from "./Reader";
import { RehearsalBar } from "./RehearsalBar";
import { SendContract } from "./SendContract";
import { Sheet } from "./Sheet";
import { WhatHappened } from "./WhatHappened";

export function RecordPage() {
	const id = useParams().id!;
	const record = useQuery({
		queryKey: ["record", id],
		queryFn: () => get<RecordDto>(`/api/projects/${id}`),
	});
	return (
		<Shown query={record}>
			{(data) => <Page key={data.id} record={data} />}
		</Shown>
	);
}

function Page({ record }: { record: RecordDto }) {
	const [search, setSearch] = useSearchParams();
	const [asking, setAsking] = useState(false);
	const [moving, setMoving] = useState(false);
	const [files, setFiles] = useState<File[]>([]);
	const open = search.get("open");
	const writing = search.get("write");
	const show = (to: Record<string, string>) =>
		setSearch(to, { replace: Boolean(open || writing) });
	useEffect(() => {
		document.title = `${record.title}, Gesamt`;
	}, [record.title]);
	useKeys({
		w: () => setAsking(true),
		l: () => show({ write: "letter" }),
		n: () => document.getElementById("write-here")?.focus(),
		Escape: () => show({}),
	});
	return (
		<main
			className="min-h-[calc(100vh-52px)] pb-8"
			onDragOver={(e) =>
				e.dataTransfer.types.includes("Files") && e.preventDefault()
			}
			onDrop={(e) => {
				if (e.dataTransfer.files.length === 0) return;
				e.preventDefault();
				setFiles([...e.dataTransfer.files]);
			}}
		>
			<div className="flex flex-wrap items-end gap-x-3.5 gap-y-2 px-5 pt-3.5 pb-3">
				<h1>{record.title}</h1>
				<p className="text-soft">
					<b className="font-semibold text-ink">{record.client.name}</b>
					{record.client.organisation && `, ${record.client.organisation}`}.{" "}
					{record.kind}.{" "}
					{record.mainDate ? (
						<>
							{record.mainDateName}{" "}
							<b className="font-semibold text-ink">{record.mainDate}</b>,{" "}
							{record.mainDateDistance}.
						</>
					) : (
						`${record.mainDateName} not known.`
					)}{" "}
					{!record.ended && (
						<button
							type="button"
							className="link text-small"
							onClick={() => setMoving(true)}
						>
							{record.mainDate ? "move" : "set"}
							<span className="sr-only">
								{" "}
								the {record.mainDateName.toLowerCase()}
							</span>
						</button>
					)}
				</p>
				<div className="ml-auto flex gap-2">
					<Away record={record} />
					{record.stage === "Lead" || record.stage === "Proposal" ? (
						<Link className="btn" to={`/projects/${record.id}/proposal`}>
							Proposal
						</Link>
					) : null}
					{record.turn.waits === "SendContract" && (
						<button
							type="button"
							className="btn"
							onClick={() => show({ write: "contract" })}
						>
							Send the contract
						</button>
					)}
					<button
						type="button"
						className="btn btn-go"
						onClick={() => setAsking(true)}
					>
						What happened?
					</button>
				</div>
			</div>
			{record.rehearsalClock && <RehearsalBar record={record} />}
			<Gates record={record} />
			<div className="px-5 pt-3 empty:hidden">
				<Matches person={record.client.id} matches={record.matches} />
			</div>
			{record.waitsForAddress && (
				<p className="px-5 pt-2 font-[650]">
					{record.badAddress
						? `Letters wait: “${record.badAddress}” is no address that a letter can be written to.`
						: `Letters wait: there is no mail address for ${record.client.name}.`}
				</p>
			)}
			<div className="grid gap-x-[22px] gap-y-5 px-5 pt-3.5 lg:grid-cols-[1fr_386px]">
				<Line
					record={record}
					onOpen={(what) => show({ open: `${what.what}.${what.id}` })}
					onWrite={() => show({ write: "letter" })}
					opened={open}
				/>
				<aside aria-label={open || writing ? "Reader" : "Sheet"}>
					{writing === "review" ? (
						<PutUp
							record={record}
							onClose={() => setSearch({}, { replace: true })}
						/>
					) : writing === "handover" ? (
						<HandOver
							record={record}
							onClose={() => setSearch({}, { replace: true })}
						/>
					) : writing === "brief" ? (
						<PutBrief
							record={record}
							onClose={() => setSearch({}, { replace: true })}
						/>
					) : writing === "form" ? (
						<AskForm
							record={record}
							onClose={() => setSearch({}, { replace: true })}
						/>
					) : writing === "contract" ? (
						<SendContract
							record={record}
							onClose={() => setSearch({}, { replace: true })}
						/>
					) : writing === "meeting" ? (
						<OfferMeeting
							record={record}
							onClose={() => setSearch({}, { replace: true })}
						/>
					) : writing ? (
						<LetterEditor
							record={record}
							begin={writing === "summary" ? "meeting-summary" : undefined}
							answers={
								writing.startsWith("answer.")
									? Number(writing.slice("answer.".length))
									: undefined
							}
							onClose={() => setSearch({}, { replace: true })}
						/>
					) : open ? (
						<Reader
							project={record.id}
							name={open}
							onWrite={(what) => show({ write: what })}
							onClose={() => setSearch({}, { replace: true })}
						/>
					) : (
						<Sheet
							record={record}
							onKeep={setFiles}
							onWrite={(what) => show({ write: what })}
							onOpen={(what) => show({ open: what })}
						/>
					)}
				</aside>
			</div>
			<MoveDate
				key={record.mainDay}
				record={record}
				open={moving}
				onClose={() => setMoving(false)}
			/>
			{files.length > 0 && (
				<KeepFiles record={record} files={files} onClose={() => setFiles([])} />
			)}
			<WhatHappened
				record={record}
				open={asking}
				onClose={() => setAsking(false)}
			/>
		</main>
	);
}

/** Out of the daily lists once it is over, and back again. */
function Away({ record }: { record: RecordDto }) {
	const act = useAct();
	if (!record.ended && record.stage !== "Finished") return null;
	return (
		<button
			type="button"
			className="btn"
			disabled={act.busy}
			onClick={() =>
				act.run(() =>
					post(`/api/projects/${record.id}/away`, { away: !record.putAway }),
				)
			}
		>
			{record.putAway ? "Take it out again" : "Put it away"}
		</button>
	);
}
