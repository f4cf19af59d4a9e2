import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../../api/client";
import { Button } from "../../ui/Button";

/** The papers that a person's projects were signed with. */
export function SignedOf({ person }: { person: number }) {
	const papers = useQuery({
		queryKey: ["over", "signed", "person", person],
		queryFn: () =>
			answer(api.GET("/api/papers/signed", { params: { query: { person } } })),
	});
	if (!papers.data || papers.data.rows.length === 0) return null;
	return (
		<section aria-label="Signed papers">
			<h2 className="rule pb-1.5">Signed papers</h2>
			{papers.data.rows.map((row) => (
				<p key={row.file} className="border-b border-hair py-1.5">
					<Button asChild kind="word">
						<a href={row.file}>{row.title}</a>
					</Button>
					<span className="under block">
						{row.projectTitle}, {row.on}
						{row.voided && ", voided"}
						{row.waits && `, still to be signed by ${row.waits}`}
					</span>
				</p>
			))}
			{papers.data.more > 0 && (
				<p className="under py-1.5">{papers.data.more} more</p>
			)}
		</section>
	);
}
