import { Link } from "react-router";
import type { RegisterDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Empty } from "../../ui/Empty";
import type { View } from "./useView";

/** The same on a phone: each project with what the chosen columns say of it, one under the other. */
export function RegisterList({
	view,
	register,
}: {
	view: View;
	register: RegisterDto;
}) {
	if (register.groups.length === 0)
		return <Empty>No project is like this. Choose less narrowly.</Empty>;
	return register.groups.map((group) => (
		<section key={group.name} aria-label={group.name}>
			<h2 className="flex gap-2 border-b border-ink pt-4 pb-1.5">
				{group.name}
				<span className="num font-normal text-soft">{group.count}</span>
				<span className="num ml-auto font-normal">
					{group.sums.find(Boolean)}
				</span>
			</h2>
			{group.rows.map((row) => (
				<Link
					key={row.id}
					data-walk
					to={`/projects/${row.id}`}
					className="block border-b border-hair py-2"
				>
					<b className="font-[650]">{row.title}</b>
					<span className="under block">
						{row.cells.filter(Boolean).join(", ")}
					</span>
				</Link>
			))}
			{group.more > 0 && (
				<Button
					kind="word"
					className="py-2"
					onClick={() => view.set({ most: "5000" })}
				>
					and {group.more} more
				</Button>
			)}
		</section>
	));
}
