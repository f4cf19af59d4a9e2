import { Link } from "react-router";
import type { PersonEventDto } from "../../api/schema";

export function Events({
	title,
	events,
}: {
	title: string;
	events: readonly PersonEventDto[];
}) {
	if (events.length === 0) return null;
	return (
		<section aria-label={title}>
			<h2 className="rule pb-1.5">{title}</h2>
			{events.map((event, i) => (
				<Link
					key={`${event.opens}${i}`}
					to={`/projects/${event.project}${event.opens ? `?open=${event.opens}` : ""}`}
					className="flex gap-3 border-b border-hair py-1.5"
				>
					<span>{event.words}</span>
					<span className="ml-auto whitespace-nowrap text-soft">
						{event.when}
					</span>
				</Link>
			))}
		</section>
	);
}
