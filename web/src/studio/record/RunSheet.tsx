import { Link } from "react-router";
import type { RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Copies } from "../runsheet/RunSheetPage";
import { Block } from "./Block";

/** What happens by the hour: where it stands, its copies, and the way to write it. */
export function RunSheet({ record }: { record: RecordDto }) {
	const line = record.sheet.runSheet;
	return (
		<Block title="Run sheet">
			<p className="pb-2 text-[14.3px]">
				{line ??
					"What happens by the hour, over one or several days, with a copy for each who reads it."}
			</p>
			{line && <Copies id={record.id} />}
			<Button asChild>
				<Link to={`/projects/${record.id}/run-sheet`}>
					{line ? "Open the run sheet" : "Begin a run sheet"}
				</Link>
			</Button>
		</Block>
	);
}
