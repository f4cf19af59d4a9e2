import { useQuery } from "@tanstack/react-query";
import { type ReactNode, useEffect, useState } from "react";
import { NavLink, Route, Routes, useParams } from "react-router";
import { answer, api } from "../../api/client";
import type { KindDto, KindPageDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Empty } from "../../ui/Empty";
import { Refused } from "../../ui/Refused";
import { Shown } from "../../ui/Shown";
import { useUndo } from "../../ui/Undo";
import { useAct } from "../useAct";
import { CopyKind } from "./CopyKind";
import { Forms } from "./Forms";
import { KeptLists } from "./KeptLists";
import { KindSettings } from "./KindSettings";
import { Letters } from "./Letters";
import { NewKind } from "./NewKind";
import { Rehearsals } from "./Rehearsals";
import { RoutinePage } from "./RoutinePage";
import { KindRoutines, RoutineList } from "./Routines";
import { RunSheets } from "./RunSheets";
import { Services, SharedServices } from "./Services";
import { TaskLists } from "./TaskLists";
import { Contract } from "./Texts";

/** Kinds of work and all they bundle, each thing with what uses it. */
export default function Templates() {
	const kinds = useQuery({
		queryKey: ["kinds"],
		queryFn: () => answer(api.GET("/api/kinds")),
	});
	useEffect(() => {
		document.title = "Templates, Gesamt";
	}, []);
	return (
		<main className="px-5 pb-8">
			<div className="pt-4 pb-3">
				<h1>Templates</h1>
				<p className="text-soft">
					What a kind of work brings along. Projects that have begun keep what
					they began with.
				</p>
			</div>
			<Shown query={kinds}>
				{(data) => (
					<div className="grid gap-x-8 gap-y-5 lg:grid-cols-[190px_1fr]">
						<div className="grid content-start gap-5">
							<Kinds kinds={data} />
							<nav aria-label="For all kinds">
								<ul className="border-t-[1.5px] border-ink">
									<Place to="/templates/routines">All routines</Place>
									<Place to="/templates/letters">Letters</Place>
									<Place to="/templates/services">Services</Place>
									<Place to="/templates/task-lists">Task lists</Place>
									<Place to="/templates/run-sheets">Run sheets</Place>
									<Place to="/templates/lists">Lists and boards</Place>
									<Place to="/templates/rehearsals">Rehearsals</Place>
									<Place to="/studio">The studio</Place>
								</ul>
							</nav>
						</div>
						<Routes>
							<Route path="routines" element={<RoutineList />} />
							<Route path="routines/:id" element={<RoutinePage />} />
							<Route path="letters" element={<Letters kinds={data} />} />
							<Route path="services" element={<SharedServices />} />
							<Route path="task-lists" element={<TaskLists />} />
							<Route path="run-sheets" element={<RunSheets />} />
							<Route path="lists" element={<KeptLists />} />
							<Route path="rehearsals" element={<Rehearsals kinds={data} />} />
							<Route path=":kind?" element={<Kind kinds={data} />} />
						</Routes>
					</div>
				)}
			</Shown>
		</main>
	);
}

function Place({ to, children }: { to: string; children: ReactNode }) {
	return (
		<li className="border-b border-hair py-1.5">
			<NavLink
				to={to}
				className={({ isActive }) => (isActive ? "font-[650]" : "")}
			>
				{children}
			</NavLink>
		</li>
	);
}

/** The kinds in the studio's order, which is kept wherever they are listed. */
function Kinds({ kinds }: { kinds: readonly KindDto[] }) {
	const act = useAct("below");
	const [adding, setAdding] = useState(false);
	function move(at: number, by: 1 | -1) {
		const order = kinds.map((kind) => kind.id);
		const [moved] = order.splice(at, 1);
		order.splice(at + by, 0, moved!);
		act.run(() =>
			answer(api.PUT("/api/kinds/order", { body: { kinds: order } })),
		);
	}
	return (
		<nav aria-label="Kinds of work">
			<ul className="border-t-[1.5px] border-ink">
				{kinds.map((kind, i) => (
					<li key={kind.id} className="border-b border-hair py-1.5">
						<NavLink
							className={({ isActive }) => (isActive ? "font-[650]" : "")}
							to={`/templates/${kind.id}`}
						>
							{kind.name}
						</NavLink>
						<span className="under flex gap-2">
							{kind.projects === 0
								? "no projects yet"
								: `${kind.projects} project${kind.projects === 1 ? "" : "s"}`}
							{i > 0 && (
								<Button
									kind="word"
									className="ml-auto"
									disabled={act.busy}
									onClick={() => move(i, -1)}
								>
									up<span className="sr-only">: {kind.name}</span>
								</Button>
							)}
						</span>
					</li>
				))}
			</ul>
			<Button className="mt-2" onClick={() => setAdding(true)}>
				Add a kind
			</Button>
			{adding && <NewKind onClose={() => setAdding(false)} />}
		</nav>
	);
}

function Kind({ kinds }: { kinds: readonly KindDto[] }) {
	const id = Number(useParams().kind ?? kinds[0]?.id ?? 0);
	const kind = useQuery({
		queryKey: ["kind", id],
		queryFn: () =>
			answer(api.GET("/api/kinds/{id}", { params: { path: { id } } })),
		enabled: id !== 0,
	});
	if (id === 0)
		return (
			<Empty>
				There is no kind of work yet. A kind bundles what its projects begin
				with: form, prices, letters, contract, phases and follow-ups. Add one
				beside, or take a starting set.
			</Empty>
		);
	return (
		<Shown query={kind}>
			{(data) => (
				<div key={id} className="grid content-start gap-6">
					<div className="flex flex-wrap items-baseline gap-3">
						<h2 className="text-[19px]">{data.name}</h2>
						<span className="text-soft">
							{data.projects === 0
								? "no projects yet"
								: `used by ${data.projects} project${data.projects === 1 ? "" : "s"}`}
						</span>
						<KindActs kind={data} />
					</div>
					<Forms kind={data} />
					<KindSettings key={`settings${data.edition}`} kind={data} />
					<Services key={data.edition} kind={data} />
					<Contract key={`contract${data.contract.edition}`} kind={data} />
					<KindRoutines kind={data} />
				</div>
			)}
		</Shown>
	);
}

const goOn = (projects: number) =>
	projects === 0
		? "No project uses it."
		: projects === 1
			? "Its one project goes on."
			: `Its ${projects} projects go on.`;

/** Copying a kind, and putting it away. */
function KindActs({ kind }: { kind: KindPageDto }) {
	const [copying, setCopying] = useState(false);
	const act = useAct();
	const offer = useUndo();
	const remove = (removed: boolean) =>
		act.run(() =>
			answer(
				api.POST("/api/kinds/{id}/removed", {
					params: { path: { id: kind.id } },
					body: { removed },
				}),
			),
		);
	return (
		<>
			<span className="ml-auto flex gap-2">
				<Button onClick={() => setCopying(true)}>Copy this kind</Button>
				<Button
					disabled={act.busy}
					onClick={async () => {
						if (await remove(true))
							offer({
								words: `${kind.name} put away. ${goOn(kind.projects)}`,
								undo: () => remove(false),
							});
					}}
				>
					Put it away
				</Button>
			</span>
			<Refused of={act.refusal} />
			{copying && <CopyKind kind={kind} onClose={() => setCopying(false)} />}
		</>
	);
}
