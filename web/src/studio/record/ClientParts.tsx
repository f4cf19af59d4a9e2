import { Link } from "react-router";
import { answer, api } from "../../api/client";
import type { PagePart, RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Tick } from "../../ui/Tick";
import { useUndo } from "../../ui/Undo";
import { useAct } from "../useAct";
import { Block } from "./Block";

export const partWords: Record<PagePart, string> = {
	Whole: "The project as a whole",
	Drafts: "Drafts and rounds",
	Files: "Files",
	Tasks: "Tasks for the client",
	RunSheet: "Run sheet",
	Introduction: "Introduction",
	Lists: "Lists",
	Boards: "Mood boards",
	Notes: "Shared notes",
	Help: "Help",
};

/** The client page, opened part by part; each part can be seen as that client first. */
export function ClientParts({ record }: { record: RecordDto }) {
	const act = useAct();
	const offer = useUndo();
	const set = (part: PagePart, open: boolean) =>
		act.run(() =>
			answer(
				api.POST("/api/projects/{id}/parts", {
					params: { path: { id: record.id } },
					body: { part, open },
				}),
			),
		);
	const end = (open: boolean) =>
		act.run(() =>
			answer(
				api.POST("/api/projects/{id}/link", {
					params: { path: { id: record.id } },
					body: { open },
				}),
			),
		);
	return (
		<Block
			title="Client page"
			aside={
				<Button asChild kind="word">
					<Link to={`/projects/${record.id}/as-client`}>
						See it as {record.head.client.name.split(" ")[0]}
					</Link>
				</Button>
			}
		>
			<p className="under">
				Proposal, contract and invoices show by themselves once they were sent.
			</p>
			{record.sheet.page.parts.map(({ part, since }) => (
				<div key={part} className="flex gap-3 py-[3px] text-[14.3px]">
					<span>{partWords[part]}</span>
					<span className="ml-auto flex gap-3 text-small whitespace-nowrap">
						{since ? (
							<>
								<span className="font-[650]">open since {since}</span>
								<Button
									kind="word"
									disabled={act.busy}
									onClick={async () => {
										if (await set(part, false))
											offer({
												words: `Closed: ${partWords[part].toLowerCase()}`,
												undo: () => set(part, true),
											});
									}}
								>
									Close
									<span className="sr-only">: {partWords[part]}</span>
								</Button>
							</>
						) : (
							<Button asChild kind="word">
								<Link to={`/projects/${record.id}/as-client?with=${part}`}>
									Look and open
									<span className="sr-only">: {partWords[part]}</span>
								</Link>
							</Button>
						)}
					</span>
				</div>
			))}
			{record.head.others.length > 0 && (
				<fieldset className="pt-3">
					<legend className="label">
						Put together with: the client finds one from the other
					</legend>
					{record.head.others.map((other) => (
						<Tick
							key={other.id}
							label={other.title}
							className="py-1 text-[14.3px]"
							checked={other.together}
							disabled={act.busy}
							onChange={(together) =>
								act.run(() =>
									answer(
										api.POST("/api/projects/{id}/together", {
											params: { path: { id: record.id } },
											body: { with: other.id, together },
										}),
									),
								)
							}
						/>
					))}
				</fieldset>
			)}
			<p className="pt-1.5 text-small">
				{record.sheet.page.linkEnded ? (
					<>
						<b className="font-[650]">The page is closed.</b>{" "}
						<Button kind="word" onClick={() => end(true)}>
							Open it again with a new link
						</Button>
					</>
				) : (
					<Button kind="word" onClick={() => end(false)}>
						Close the page: its link opens nothing any more
					</Button>
				)}
			</p>
			<Refused of={act.refusal} />
		</Block>
	);
}
