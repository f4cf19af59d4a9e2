import { useQuery } from "@tanstack/react-query";
import type { CSSProperties } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import { answer, api } from "../../api/client";
import type { PagePart } from "../../api/schema";
import { Head, Parts, ToDo } from "../../client/Parts";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Shown } from "../../ui/Shown";
import { useAct } from "../useAct";

/** The page as its client sees it, with what else becomes visible if one more part is opened. */
export default function AsClient() {
	const id = Number(useParams().id);
	const [search] = useSearchParams();
	const part = search.get("with") as PagePart | null;
	const seen = useQuery({
		queryKey: ["project", id, "as-client", part],
		queryFn: () =>
			answer(
				api.GET("/api/projects/{id}/as-client", {
					params: { path: { id }, query: { with: part ?? undefined } },
				}),
			),
	});
	return (
		<main className="px-5 py-4">
			<Shown query={seen}>
				{(data) => (
					<>
						<div className="flex flex-wrap items-start gap-x-6 gap-y-2 pb-4">
							<div>
								<h1>As {data.page.person} sees it</h1>
								<p className="text-soft">
									<Button asChild kind="word">
										<Link to={`/projects/${id}`}>{data.page.project}</Link>
									</Button>
									{data.with && `, with ${data.with} open`}
								</p>
							</div>
							{part && data.alsoVisible.length > 0 && (
								<Opening id={id} part={part} also={data.alsoVisible} />
							)}
						</div>
						<div
							className="client border border-hair bg-sheet p-5 text-[16px] md:px-10"
							style={{ "--brand": data.page.studio.brand } as CSSProperties}
							inert
						>
							{data.page.parts.whole ||
							data.page.parts.drafts ||
							data.page.parts.files ||
							data.page.parts.help ? (
								<>
									<Head page={data.page} />
									<ToDo page={data.page} />
									<Parts
										page={data.page}
										link=""
										reload={async () => undefined}
										files={`/api/projects/${id}/as-client`}
									/>
								</>
							) : (
								<p>
									No part is open yet.{" "}
									{data.page.booking.step === "Done" ||
									data.page.booking.step === "Nothing"
										? "They see their papers and nothing else."
										: "They see what they have to do: choose, sign and book."}
								</p>
							)}
						</div>
					</>
				)}
			</Shown>
		</main>
	);
}

function Opening({
	id,
	part,
	also,
}: {
	id: number;
	part: PagePart;
	also: readonly string[];
}) {
	const act = useAct();
	const navigate = useNavigate();
	return (
		<div className="ml-auto max-w-xl border-l-4 border-ink pl-4">
			<p>
				<b className="font-[650]">Also becomes visible:</b> {also.join(", ")}.
			</p>
			<Refused of={act.refusal} />
			<Button
				kind="go"
				className="mt-2"
				disabled={act.busy}
				onClick={async () => {
					if (
						await act.run(() =>
							answer(
								api.POST("/api/projects/{id}/parts", {
									params: { path: { id } },
									body: { part, open: true },
								}),
							),
						)
					)
						navigate(`/projects/${id}`);
				}}
			>
				Open this part
			</Button>
		</div>
	);
}
