import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { answer, api } from "../../api/client";
import type { OwnListDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Entries } from "../../ui/lists/Entries";
import { Refused } from "../../ui/Refused";
import { ShownPage } from "../../ui/Shown";
import { useUndo } from "../../ui/Undo";
import { useAct } from "../useAct";
import { Columns } from "./Columns";
import { FinalBoard } from "./FinalBoard";
import { KeepList } from "./KeepList";
import { NameAndReader } from "./NameAndReader";
import { TakeTable } from "./TakeTable";
import { TheirChanges } from "./TheirChanges";
import { useListActs } from "./useListActs";
import { sortWords } from "./words";

/** A list, a mood board or shared notes: of a project, or kept to be laid. */
export default function ListPage() {
	const id = useParams().list ?? "";
	const list = useQuery({
		queryKey: ["over", "list", id],
		queryFn: () =>
			answer(api.GET("/api/lists/{list}", { params: { path: { list: id } } })),
	});
	return (
		<ShownPage query={list}>{(data) => <One key={id} own={data} />}</ShownPage>
	);
}

type Asked = "columns" | "keep" | "table";

function One({ own }: { own: OwnListDto }) {
	const { list } = own;
	const acts = useListActs(list);
	const [asked, setAsked] = useState<Asked>();
	const [naming, setNaming] = useState(false);
	const close = () => setAsked(undefined);
	useEffect(() => setNaming(false), [own.edition]);
	useEffect(() => {
		document.title = `${list.name}, ${own.project ?? "Templates"}, Gesamt`;
	}, [list.name, own.project]);
	return (
		<main className="px-5 pb-10">
			<div className="flex flex-wrap items-end gap-x-4 gap-y-2 pt-4 pb-3">
				<h1>{list.name}</h1>
				<Button
					kind="word"
					size="small"
					className="pb-1"
					aria-expanded={naming}
					onClick={() => setNaming(!naming)}
				>
					rename
				</Button>
				<p className="text-soft">
					{sortWords[list.sort].toLowerCase()}{" "}
					{own.projectId ? (
						<>
							of{" "}
							<Button asChild kind="word">
								<Link to={`/projects/${own.projectId}?sheet=Lists and boards`}>
									{own.project}
								</Link>
							</Button>
						</>
					) : (
						<>
							kept under{" "}
							<Button asChild kind="word">
								<Link to="/templates/lists">Templates</Link>
							</Button>
							, to be laid on projects
						</>
					)}
					{list.state && `, ${list.state}`}
				</p>
				<div className="ml-auto flex flex-wrap gap-2">
					{list.sort === "Rows" && (
						<>
							<Button onClick={() => setAsked("columns")}>Columns</Button>
							<Button onClick={() => setAsked("table")}>
								Take over a table
							</Button>
							<Button asChild>
								<a href={`/api/lists/${list.id}/table.csv`}>As a table (CSV)</a>
							</Button>
						</>
					)}
					{own.projectId && (
						<Button onClick={() => setAsked("keep")}>
							Keep it to lay again
						</Button>
					)}
					<TakeOut own={own} />
				</div>
			</div>
			<NameAndReader key={own.edition} own={own} naming={naming} />
			{list.sort === "Board" && own.projectId && <FinalBoard own={own} />}
			<TheirChanges own={own} />
			<Entries
				list={list}
				base={`/api/lists/${list.id}`}
				acts={acts}
				names={own.names}
			/>
			{asked === "columns" && <Columns own={own} onClose={close} />}
			{asked === "keep" && <KeepList own={own} onClose={close} />}
			{asked === "table" && <TakeTable own={own} onClose={close} />}
		</main>
	);
}

function TakeOut({ own }: { own: OwnListDto }) {
	const act = useAct();
	const offer = useUndo();
	const navigate = useNavigate();
	const set = (removed: boolean) =>
		answer(
			api.POST("/api/lists/{list}/removed", {
				params: { path: { list: own.list.id } },
				body: { removed },
			}),
		);
	return (
		<>
			<Button
				disabled={act.busy}
				onClick={() =>
					act.run(async () => {
						await set(true);
						navigate(
							own.projectId
								? `/projects/${own.projectId}?sheet=Lists and boards`
								: "/templates/lists",
						);
						offer({
							words: `Taken out: ${own.list.name}`,
							undo: () => act.run(() => set(false)),
						});
					})
				}
			>
				Take it out
			</Button>
			<Refused of={act.refusal} />
		</>
	);
}
