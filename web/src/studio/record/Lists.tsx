import { useState } from "react";
import { Link } from "react-router";
import type { RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { BeginList } from "../lists/BeginList";
import { LayLists } from "../lists/LayLists";
import { sortWords } from "../lists/words";
import { Block } from "./Block";

/** Lists, mood boards and shared notes of the project, and what the client changed in them. */
export function Lists({ record }: { record: RecordDto }) {
	const [asked, setAsked] = useState<"begin" | "lay">();
	const close = () => setAsked(undefined);
	const { lists } = record.sheet;
	return (
		<Block title="Lists and boards">
			{lists.length === 0 && (
				<p className="pb-2 text-[14.3px]">
					Guests, suppliers, a budget, a plan of posts; pictures to find a look;
					notes that both of you write.
				</p>
			)}
			{lists.map((one) => (
				<p key={one.id} className="border-b border-hair py-1.5 text-[14.3px]">
					<Link
						to={`/projects/${record.id}/lists/${one.id}`}
						className="font-[650]"
					>
						{one.name}
					</Link>{" "}
					<span className="text-soft">
						{sortWords[one.sort].toLowerCase()}, {one.about}
					</span>
					{one.unseen > 0 && (
						<b className="block text-small font-[650]">
							{one.unseen} change{one.unseen === 1 ? "" : "s"} of the client to
							look at
						</b>
					)}
				</p>
			))}
			<p className="flex flex-wrap gap-2 pt-2">
				<Button onClick={() => setAsked("begin")}>Begin one</Button>
				<Button onClick={() => setAsked("lay")}>Lay kept ones</Button>
			</p>
			{asked === "begin" && <BeginList project={record.id} onClose={close} />}
			{asked === "lay" && <LayLists project={record.id} onClose={close} />}
		</Block>
	);
}
