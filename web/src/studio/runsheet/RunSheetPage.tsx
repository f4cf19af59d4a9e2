import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import { answer, api } from "../../api/client";
import type { RunSheetDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { CountField } from "../../ui/CountField";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { ShownPage } from "../../ui/Shown";
import { useAct } from "../useAct";
import { useDraft } from "../useDraft";
import { KeepAsTemplate } from "./KeepAsTemplate";
import { LaySheet } from "./LaySheet";
import { RunItems } from "./RunItems";
import { saying, wrongIn } from "./written";

/** The run sheet of a project, kept as it is typed. */
export default function RunSheetPage() {
	const id = Number(useParams().id);
	const sheet = useQuery({
		queryKey: ["run-sheet", id],
		queryFn: () =>
			answer(
				api.GET("/api/projects/{id}/run-sheet", { params: { path: { id } } }),
			),
		staleTime: Number.POSITIVE_INFINITY,
		gcTime: 0,
	});
	return (
		<ShownPage query={sheet}>
			{(data) => <Editor key={id} id={id} first={data} />}
		</ShownPage>
	);
}

const written = (sheet: RunSheetDto) => ({
	dateName: sheet.dateName,
	earlier: sheet.earlier,
	items: [...sheet.items],
});

function Editor({ id, first }: { id: number; first: RunSheetDto }) {
	const params = { path: { id } };
	const { draft, value, change, take, state, refusal } = useDraft(
		first,
		written,
		(edition, sheet) =>
			answer(
				api.PUT("/api/projects/{id}/run-sheet", {
					params,
					body: { ...sheet, edition, items: saying(sheet.items) },
				}),
			),
	);
	const [laying, setLaying] = useState(false);
	const [keeping, setKeeping] = useState(false);
	const act = useAct();
	useEffect(() => {
		document.title = `Run sheet, ${first.project}, Gesamt`;
	}, [first.project]);
	const begun = draft.items.length > 0;
	return (
		<main className="px-5 pb-10">
			<div className="flex flex-wrap items-end gap-x-4 gap-y-2 pt-4 pb-3">
				<h1>Run sheet</h1>
				<p className="text-soft">
					for{" "}
					<Button asChild kind="word">
						<Link to={`/projects/${id}?sheet=Run sheet`}>{draft.project}</Link>
					</Button>
					, {draft.mainDay ?? "its day is not known yet"}, {draft.state}
				</p>
				<p role="status" className="text-soft">
					{draft.edition > 0 && state}
				</p>
				<div className="ml-auto flex flex-wrap gap-2">
					<Button onClick={() => setLaying(true)}>Lay one on this date</Button>
					{begun && (
						<Button onClick={() => setKeeping(true)}>
							Keep it to lay again
						</Button>
					)}
					{begun && !draft.agreed && (
						<Button
							kind="go"
							disabled={act.busy || state !== "kept"}
							onClick={() =>
								act.run(async () =>
									take(
										await answer(
											api.POST("/api/projects/{id}/run-sheet/agreed", {
												params,
											}),
										),
									),
								)
							}
						>
							It is agreed
						</Button>
					)}
				</div>
			</div>
			<Changes changes={draft.changes} />
			<Refused of={act.refusal ?? refusal} />
			{begun && <Copies id={id} />}
			<div className="grid max-w-xl grid-cols-2 gap-3 pb-4">
				<Select
					label="Its day is the"
					value={value.dateName}
					wrong={refusal?.of("dateName")}
					onChange={(e) => change({ ...value, dateName: e.target.value })}
				>
					{draft.dates.map((name) => (
						<option key={name}>{name}</option>
					))}
				</Select>
				<CountField
					label="Guests are told, minutes earlier"
					min={0}
					max={240}
					value={value.earlier}
					wrong={refusal?.of("earlier")}
					onChange={(earlier) => change({ ...value, earlier: earlier ?? 0 })}
				/>
			</div>
			{value.items.length === 0 && (
				<p className="max-w-xl pb-4 text-soft">
					What happens stands here by the hour, day by day. Write it, or lay one
					that you kept.
				</p>
			)}
			<RunItems
				items={value.items}
				days={draft.days}
				earlier={value.earlier}
				wrong={wrongIn(refusal, value.items)}
				onChange={(items) => change({ ...value, items })}
			/>
			{laying && (
				<LaySheet
					project={id}
					edition={draft.edition}
					onLaid={take}
					onClose={() => setLaying(false)}
				/>
			)}
			{keeping && (
				<KeepAsTemplate items={draft.items} onClose={() => setKeeping(false)} />
			)}
		</main>
	);
}

function Changes({ changes }: { changes: readonly string[] }) {
	if (changes.length === 0) return null;
	return (
		<section aria-label="Changed since it was agreed" className="pb-3">
			<h2 className="label">Changed since it was agreed</h2>
			<ul className="list-disc pl-5">
				{changes.map((change) => (
					<li key={change}>{change}</li>
				))}
			</ul>
		</section>
	);
}

const copies = [
	["Me", "the whole of it"],
	["Client", "the client"],
	["Suppliers", "suppliers"],
	["Guests", "guests"],
] as const;

/** Its copies on A4, one day a page. */
export function Copies({ id }: { id: number }) {
	return (
		<p className="flex flex-wrap gap-x-3 gap-y-2 pb-3">
			<span className="text-soft">To print, for</span>
			{copies.map(([reader, words]) => (
				<Button key={reader} asChild kind="word">
					<a
						href={`/api/projects/${id}/run-sheet.pdf?reader=${reader}`}
						target="_blank"
						rel="noreferrer"
					>
						{words}
					</a>
				</Button>
			))}
			<Button asChild kind="word">
				<a href={`/api/projects/${id}/run-sheet.csv`} download>
					As a table (CSV)
				</a>
			</Button>
		</p>
	);
}
