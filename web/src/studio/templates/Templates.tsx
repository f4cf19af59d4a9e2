import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link, useParams } from "react-router";
import type { KindDto, KindPageDto } from "../../api/schema";
import { get } from "../../ui/http";
import { Shown } from "../../ui/Shown";
import { Forms } from "./Forms";
import { KindSettings } from "./KindSettings";
import { Routines } from "./Routines";
import { Services } from "./Services";
import { Contract, Letters } from "./Texts";

/** Kinds of work and what they bring along: services, contract, letters, routines. */
export default function Templates() {
	const chosen = useParams().kind;
	const kinds = useQuery({
		queryKey: ["kinds"],
		queryFn: () => get<KindDto[]>("/api/kinds"),
	});
	useEffect(() => {
		document.title = "Templates, Gesamt";
	}, []);
	return (
		<main className="px-5 pb-8">
			<div className="pt-4 pb-3">
				<h1>Templates</h1>
				<p className="text-soft">
					What a kind of work brings along. Projects that have begun keep what
					they began with.
				</p>
			</div>
			<Shown query={kinds}>
				{(data) => (
					<div className="grid gap-x-8 gap-y-5 lg:grid-cols-[190px_1fr]">
						<nav aria-label="Kinds of work">
							<ul className="border-t-[1.5px] border-ink">
								{data.map((kind) => (
									<li key={kind.id} className="border-b border-hair py-1.5">
										<Link
											className={
												String(kind.id) === (chosen ?? String(data[0]?.id))
													? "font-[650]"
													: ""
											}
											to={`/templates/${kind.id}`}
										>
											{kind.name}
										</Link>
										<span className="under block">
											{kind.projects} project{kind.projects === 1 ? "" : "s"}
										</span>
									</li>
								))}
							</ul>
							<p className="pt-4">
								<Link className="link" to="/studio">
									The studio: details, hours, meetings
								</Link>
							</p>
						</nav>
						{data[0] && (
							<Kind
								key={chosen ?? data[0].id}
								id={chosen ?? String(data[0].id)}
							/>
						)}
					</div>
				)}
			</Shown>
		</main>
	);
}

function Kind({ id }: { id: string }) {
	const kind = useQuery({
		queryKey: ["kind", id],
		queryFn: () => get<KindPageDto>(`/api/kinds/${id}`),
	});
	return (
		<Shown query={kind}>
			{(data) => (
				<div className="grid gap-6">
					<h2 className="text-[19px]">{data.name}</h2>
					<p className="-mt-5 text-soft">
						{data.phases.length > 0 && `Phases: ${data.phases.join(", ")}. `}
						{data.rounds} round{data.rounds === 1 ? "" : "s"} of review
						included.
						{data.closingSteps.length > 0 &&
							` After the handover: ${data.closingSteps.join(", ").toLowerCase()}.`}
					</p>
					<Services kind={data} />
					<Forms kind={data} />
					<KindSettings key={data.edition} kind={data} />
					<Routines kind={data} />
					<Letters kind={data} />
					<Contract kind={data} />
				</div>
			)}
		</Shown>
	);
}
