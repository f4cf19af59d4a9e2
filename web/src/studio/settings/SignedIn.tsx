import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../../api/client";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Section } from "../templates/Section";
import { useAct } from "../useAct";
import { Codes } from "./Codes";

/** Where the owner is signed in, and the second key to the door. */
export function SignedIn() {
	const act = useAct();
	const sessions = useQuery({
		queryKey: ["sessions"],
		queryFn: () => answer(api.GET("/api/sessions")),
	});
	return (
		<Section title="Signing in" under="browsers, one-time codes">
			<ul>
				{sessions.data?.map((one) => (
					<li
						key={one.id}
						className="flex flex-wrap items-baseline gap-x-2 border-b border-hair py-1.5"
					>
						<b className="font-[650]">
							{one.browser || "A browser that does not say what it is"}
							{one.this && ", this one"}
						</b>
						<span className="under min-w-0 break-words">
							from {one.address}, since {one.began}, last used {one.seen}
						</span>
						{!one.this && (
							<Button
								kind="word"
								size="small"
								disabled={act.busy}
								onClick={() =>
									act.run(() =>
										answer(
											api.DELETE("/api/sessions/{id}", {
												params: { path: { id: one.id } },
											}),
										),
									)
								}
							>
								sign it out
								<span className="sr-only">: {one.browser}</span>
							</Button>
						)}
					</li>
				))}
			</ul>
			<Refused of={act.refusal} />
			<Button
				className="mt-3"
				disabled={act.busy}
				onClick={async () => {
					if (await act.run(() => answer(api.POST("/api/session/end-all"))))
						location.assign("/");
				}}
			>
				Sign out everywhere
			</Button>
			<Codes />
		</Section>
	);
}
