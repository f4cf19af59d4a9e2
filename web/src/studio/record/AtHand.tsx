import type { RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Block } from "./Block";

/** The papers of the project, as they were sent and signed. */
export function AtHand({ papers }: { papers: RecordDto["sheet"]["papers"] }) {
	return (
		<Block title="At hand">
			{papers.map((paper) => (
				<p key={paper.address} className="py-[2.5px] text-[14.3px]">
					<Button asChild kind="word">
						<a href={paper.address}>{paper.name}</a>
					</Button>{" "}
					<span className="text-soft">PDF</span>
				</p>
			))}
		</Block>
	);
}
