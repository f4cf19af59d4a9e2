import { useState } from "react";
import { Link } from "react-router";
import { Button } from "../../ui/Button";
import { Shown } from "../../ui/Shown";
import { BeginList } from "../lists/BeginList";
import { useKeptLists } from "../lists/LayLists";
import { sortWords } from "../lists/words";

/** Lists, mood boards and notes that are laid on projects. */
export function KeptLists() {
	const [beginning, setBeginning] = useState(false);
	const kept = useKeptLists();
	return (
		<div className="grid content-start gap-4">
			<div className="flex flex-wrap items-baseline gap-3">
				<h2 className="text-[19px]">Lists and boards</h2>
				<span className="text-soft">laid on projects, several at once</span>
				<Button className="ml-auto" onClick={() => setBeginning(true)}>
					Begin one
				</Button>
			</div>
			<Shown query={kept}>
				{(data) => (
					<ul className="border-t-[1.5px] border-ink">
						{data.map((one) => (
							<li key={one.id} className="border-b border-hair py-1.5">
								<Link to={`/lists/${one.id}`} className="font-[600]" data-walk>
									{one.name}
								</Link>{" "}
								<span className="under">
									{sortWords[one.sort].toLowerCase()}, {one.about}
								</span>
							</li>
						))}
						{data.length === 0 && (
							<li className="py-3 text-soft">
								The guest list or the mood board that every project begins with
								would stand here.
							</li>
						)}
					</ul>
				)}
			</Shown>
			{beginning && <BeginList onClose={() => setBeginning(false)} />}
		</div>
	);
}
