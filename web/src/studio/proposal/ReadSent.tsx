import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { answer, api } from "../../api/client";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Shown } from "../../ui/Shown";
import { useAct } from "../useAct";
import { useOnItsWay } from "../useOnItsWay";
import { AsRead } from "./AsRead";

/** A proposal that went out, to read as its client reads it; one that ran out is renewed here by one act. */
export default function ReadSent() {
	const { id, version } = useParams();
	const project = Number(id);
	const seen = useQuery({
		queryKey: ["project", project, "proposal", version],
		queryFn: () =>
			answer(
				api.GET("/api/versions/{id}/as-client", {
					params: { path: { id: Number(version) } },
				}),
			),
	});
	const draft = useQuery({
		queryKey: ["draft", project],
		queryFn: () =>
			answer(
				api.GET("/api/projects/{id}/proposal", {
					params: { path: { id: project } },
				}),
			),
	});
	const navigate = useNavigate();
	const act = useAct();
	const onItsWay = useOnItsWay();
	useEffect(() => {
		if (seen.data) document.title = `${seen.data.title}, proposal, Gesamt`;
	}, [seen.data]);
	const renew = () =>
		act.run(async () => {
			const sent = await answer(
				api.POST("/api/projects/{id}/proposal/renew", {
					params: { path: { id: project } },
				}),
			);
			onItsWay(sent.letter, "the proposal, renewed");
			navigate(`/projects/${project}`);
		});
	return (
		<main className="px-5 py-4">
			<Shown query={seen}>
				{(proposal) => (
					<>
						<div className="flex flex-wrap items-end gap-x-4 gap-y-2 pb-3">
							<h1>Proposal, version {proposal.version}</h1>
							<p className="text-soft">
								<Button asChild kind="word">
									<Link to={`/projects/${project}`}>
										{draft.data?.project ?? "the project"}
									</Link>
								</Button>
								{draft.data?.sent?.opened &&
									`, opened ${draft.data.sent.opened}`}
							</p>
							<div className="ml-auto flex flex-wrap gap-2">
								{draft.data && !draft.data.closed && (
									<>
										{proposal.ranOut && (
											<Button kind="go" disabled={act.busy} onClick={renew}>
												Renew it and tell {draft.data.client}
											</Button>
										)}
										<Button asChild>
											<Link to={`/projects/${project}/proposal`}>
												Write the next version
											</Link>
										</Button>
									</>
								)}
							</div>
						</div>
						<Refused of={act.refusal} />
						{proposal.ranOut && !draft.data?.closed && (
							<p className="pb-3 font-[650]">
								It ran out {proposal.validUntil}: nobody can choose it any more.
							</p>
						)}
						<AsRead
							proposal={proposal}
							client={draft.data?.client ?? ""}
							brand={draft.data?.brand}
						/>
					</>
				)}
			</Shown>
		</main>
	);
}
