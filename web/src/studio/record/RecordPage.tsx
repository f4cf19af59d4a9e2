import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useEffect, useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import { answer, api } from "../../api/client";
import type { HappenedSort, RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { ShownPage } from "../../ui/Shown";
import { useKeys } from "../Keys";
import { Matches } from "../people/Matches";
import { ChangeTask } from "./ChangeTask";
import { Gates } from "./Gates";
import { Head, Places } from "./Head";
import { Line } from "./Line";
import { type DateToMove, MoveDate } from "./MoveDate";
import type { Begins } from "./nextAct";
import { RehearsalBar } from "./RehearsalBar";
import { Side } from "./Side";
import { TheirWords } from "./TheirWords";
import { useFocusInto } from "./useFocusInto";
import { useKeepFiles } from "./useKeepFiles";

const WhatHappened = lazy(() => import("./WhatHappened"));

export default function RecordPage() {
	const id = Number(useParams().id);
	const record = useQuery({
		queryKey: ["project", id, "record"],
		queryFn: () =>
			answer(api.GET("/api/projects/{id}", { params: { path: { id } } })),
	});
	return (
		<ShownPage query={record} usual={<Link to="/register">All projects</Link>}>
			{(data) => <Page key={data.id} record={data} />}
		</ShownPage>
	);
}

function Page({ record }: { record: RecordDto }) {
	const [search, setSearch] = useSearchParams();
	const [asking, setAsking] = useState<HappenedSort | "anything">();
	const [moving, setMoving] = useState<DateToMove>();
	const files = useKeepFiles(record.id);
	const open = search.get("open");
	const writing = search.get("write");
	const focus = useFocusInto(open ?? writing ?? search.get("sheet"));
	const show = (to: Record<string, string>) => {
		focus.leave();
		setSearch(to, { replace: Boolean(open || writing) });
	};
	const close = () => setSearch({}, { replace: true });
	const task = record.sheet.tasks.open.find(
		(one) => `${one.id}` === search.get("task"),
	);
	useEffect(() => {
		document.title = `${record.head.title}, Gesamt`;
	}, [record.head.title]);
	const begins: Begins = {
		write: (what) => show({ write: what }),
		open: (what) => show({ open: what }),
		happened: (sort) => setAsking(sort ?? "anything"),
	};
	useKeys({
		a: () =>
			document
				.querySelector<HTMLElement>("#next-acts a, #next-acts button")
				?.focus(),
		w: () => setAsking("anything"),
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
				files.keep([...e.dataTransfer.files]);
			}}
		>
			<Head
				record={record}
				onMove={setMoving}
				onHappened={() => setAsking("anything")}
			/>
			{record.head.rehearsalClock && <RehearsalBar record={record} />}
			{task && (
				<ChangeTask key={task.id} record={record} task={task} onClose={close} />
			)}
			{record.path.turn.waits === "AnswerInquiry" && (
				<div className="px-4 pb-3 lg:hidden">
					<TheirWords record={record} />
				</div>
			)}
			<Gates record={record} begins={begins} />
			<div className="flex flex-wrap gap-2 px-4 pt-3 lg:hidden">
				<Button kind="go" onClick={() => setAsking("anything")}>
					What happened?
				</Button>
				{!record.head.erased && (
					<Button onClick={() => show({ write: "letter" })}>Letter</Button>
				)}
				<Button onClick={() => show({ sheet: "open" })}>Sheet</Button>
				<Places record={record} />
			</div>
			<div className="px-5 pt-3 empty:hidden">
				<Matches
					person={record.head.client.id}
					matches={record.about.matches}
				/>
			</div>
			{record.involved.waitsForAddress && (
				<p className="px-5 pt-2 font-[650]">
					{record.involved.badAddress
						? `Letters wait: “${record.involved.badAddress}” is no address that a letter can be written to.`
						: `Letters wait: there is no mail address for ${record.head.client.name}.`}
				</p>
			)}
			<div className="grid gap-x-[22px] gap-y-5 px-5 pt-3.5 lg:grid-cols-[1fr_386px]">
				<Line
					record={record}
					onOpen={(what) => show({ open: `${what.what}.${what.id}` })}
					onWrite={() => show({ write: "letter" })}
					opened={open}
				/>
				<Side
					place={focus.place}
					record={record}
					begins={begins}
					open={open}
					writing={writing}
					sheet={search.get("sheet")}
					onShow={show}
					onClose={close}
					files={files}
				/>
			</div>
			{moving && (
				<MoveDate
					key={moving.name}
					record={record}
					date={moving}
					onClose={() => setMoving(undefined)}
				/>
			)}
			<Suspense>
				<WhatHappened
					key={asking}
					record={record}
					open={asking !== undefined}
					first={asking === "anything" ? undefined : asking}
					onClose={() => setAsking(undefined)}
				/>
			</Suspense>
		</main>
	);
}
