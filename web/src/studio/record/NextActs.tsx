import { Link } from "react-router";
import type { NextAct, RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { useUndo } from "../../ui/Undo";
import { useAct } from "../useAct";
import { type Begins, backOf, runs, saidOf } from "./nextAct";

/** The next acts of a project, the one it waits for first. */
export function NextActs({
	record,
	begins,
}: {
	record: RecordDto;
	begins: Begins;
}) {
	if (record.path.next.length === 0) return null;
	return (
		<span id="next-acts" className="mt-1.5 flex flex-wrap gap-1.5">
			{record.path.next.map((next, i) => (
				<One
					key={next}
					next={next}
					first={i === 0}
					record={record}
					begins={begins}
				/>
			))}
		</span>
	);
}

function One({
	next,
	first,
	record,
	begins,
}: {
	next: NextAct;
	first: boolean;
	record: RecordDto;
	begins: Begins;
}) {
	const act = useAct();
	const offer = useUndo();
	const kind = first ? "go" : "plain";
	if (next === "WriteProposal")
		return (
			<Button asChild kind={kind}>
				<Link to={`/projects/${record.id}/proposal`}>
					{saidOf(next, record)}
				</Link>
			</Button>
		);
	const run = runs(next, record, begins);
	const said = saidOf(next, record);
	if (!run || !said) return null;
	return (
		<>
			<Button
				kind={kind}
				disabled={act.busy}
				onClick={async () => {
					const write = run();
					if (!write || !(await act.run(() => write))) return;
					const back = backOf(next, record);
					if (back)
						offer({
							words: said,
							undo: () => act.run(back),
						});
				}}
			>
				{said}
			</Button>
			<Refused of={act.refusal} />
		</>
	);
}
