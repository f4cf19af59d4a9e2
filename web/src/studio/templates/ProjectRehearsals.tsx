import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { answer, api } from "../../api/client";
import type { KindDto } from "../../api/schema";
import { Shown } from "../../ui/Shown";
import { Begin } from "./BeginRehearsal";

/** Whole projects that are rehearsals. */
export function Projects({ kinds }: { kinds: readonly KindDto[] }) {
	const rehearsals = useQuery({
		queryKey: ["rehearsals"],
		queryFn: () => answer(api.GET("/api/rehearsals")),
	});
	return (
		<section aria-label="Whole projects">
			<div className="rule flex items-baseline gap-2 pb-1.5">
				<h3>Whole projects</h3>
				<span className="text-[14px] text-soft">
					like any other, with a clock of their own; they count nowhere
				</span>
			</div>
			<Shown query={rehearsals}>
				{(data) => (
					<>
						{data.map((one) => (
							<div
								key={one.id}
								className="flex flex-wrap gap-x-3 border-b border-hair py-2"
							>
								<Link className="font-[650]" to={`/projects/${one.id}`}>
									{one.title}
								</Link>
								<span className="text-soft">
									{one.kind}. {one.words}
								</span>
								<span className="num ml-auto text-(--date)">{one.clock}</span>
							</div>
						))}
						{data.length === 0 && (
							<p className="py-3 text-soft">
								No project is rehearsed. Begin one and wind its clock: letters,
								papers and steps come as they would, and none leaves the house.
							</p>
						)}
					</>
				)}
			</Shown>
			<Begin kinds={kinds} />
		</section>
	);
}
