import { Link } from "react-router";
import type { RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Block } from "./Block";

/** The papers of the project, as they were sent and signed. */
export function AtHand({
	project,
	papers,
}: {
	project: number;
	papers: RecordDto["sheet"]["papers"];
}) {
	return (
		<Block title="At hand">
			{papers.map((paper) => (
				<p key={paper.name} className="py-[5px]">
					<Button asChild kind="word">
						{paper.version === null ? (
							<a href={paper.file!}>{paper.name}</a>
						) : (
							<Link to={`/projects/${project}/proposal/${paper.version}`}>
								{paper.name}
							</Link>
						)}
					</Button>
					{paper.about && <span className="under block">{paper.about}</span>}
				</p>
			))}
		</Block>
	);
}
