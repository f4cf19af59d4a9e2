import { useState } from "react";
import { answer, api } from "../api/client";
import type { Refusal } from "../api/refusal";
import type { CopiedLineDto } from "../api/schema";
import { Button } from "../ui/Button";
import { Refused } from "../ui/Refused";
import { AskPart } from "./AskPart";
import type { PartProps } from "./Parts";

/** What happens by the hour: provisional until the client says that it is right, with what changed since. */
export default function RunSheetPart({ page, link, reload, files }: PartProps) {
	const [refusal, setRefusal] = useState<Refusal>();
	const sheet = page.parts.runSheet;
	if (!sheet) return null;
	async function agree() {
		try {
			await answer(
				api.POST("/p/{link}/api/run-sheet/agree", {
					params: { path: { link } },
					body: { hash: sheet?.hash ?? "" },
				}),
			);
			setRefusal(undefined);
			await reload();
		} catch (error) {
			setRefusal(error as Refusal);
		}
	}
	return (
		<section id="run-sheet" aria-label="Run sheet">
			<h2 className="rule pb-1.5">Run sheet</h2>
			<p className="py-2">
				<b className="font-[650]">
					{sheet.agreed ? `Agreed, ${sheet.agreed}` : "Provisional"}
				</b>
				{!sheet.agreed && ", until you say that it is right."}
			</p>
			{sheet.changes.length > 0 && (
				<>
					<h3>Changed since you agreed</h3>
					<ul className="list-disc pb-2 pl-5">
						{sheet.changes.map((change) => (
							<li key={change}>{change}</li>
						))}
					</ul>
				</>
			)}
			{sheet.days.length === 0 && (
				<p className="text-soft">Nothing is on it yet.</p>
			)}
			{sheet.days.map((day) => (
				<section key={day.words} aria-label={day.words} className="pb-4">
					<h3 className="border-b border-ink py-1">{day.words}</h3>
					{day.lines.length === 0 && (
						<p className="py-1.5 text-soft">Nothing on this day.</p>
					)}
					{day.lines.map((line, at) => (
						<Line key={at} line={line} />
					))}
				</section>
			))}
			<Refused of={refusal} />
			{sheet.days.length > 0 && !files && (
				<div className="flex flex-wrap items-center gap-3">
					{!sheet.agreed && (
						<Button kind="brand" onClick={agree}>
							This is right
						</Button>
					)}
					<Button asChild kind="word">
						<a href={`/p/${link}/api/run-sheet.pdf`}>To print (PDF)</a>
					</Button>
					<Button asChild kind="word">
						<a href={`/p/${link}/api/run-sheet.pdf?reader=Guests`}>
							For your guests (PDF)
						</a>
					</Button>
				</div>
			)}
			{!files && (
				<AskPart
					part="RunSheet"
					link={link}
					owner={page.studio.owner}
					reload={reload}
				/>
			)}
		</section>
	);
}

function Line({ line }: { line: CopiedLineDto }) {
	const about = [
		line.where,
		line.who,
		line.for !== "everybody" && `for ${line.for}`,
		line.guests && `guests are told ${line.guests}`,
	].filter(Boolean);
	return (
		<div className="grid grid-cols-[64px_1fr] gap-x-3 border-b border-hair py-1.5">
			<span className="num font-[650]">{line.time}</span>
			<span className="min-w-0 break-words">
				{line.what}
				{line.until && <span className="text-soft">, until {line.until}</span>}
				{about.length > 0 && (
					<span className="under block">{about.join(", ")}</span>
				)}
			</span>
		</div>
	);
}
