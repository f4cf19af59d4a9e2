import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../../api/client";
import { Choice, Choices } from "../../ui/Choice";

import type { Said } from "./said";
/** Somebody of that name is known: offered, never taken by itself. */
export function Known({
	said,
	onChoose,
}: {
	said: Said;
	onChoose: (person: string) => void;
}) {
	const words = said.name.trim();
	const known = useQuery({
		queryKey: ["over", "people", "known", words],
		queryFn: () =>
			answer(api.GET("/api/people", { params: { query: { words } } })),
		enabled: words.length >= 3,
	});
	const rows = words.length >= 3 ? (known.data?.rows.slice(0, 4) ?? []) : [];
	if (rows.length === 0) return null;
	return (
		<div className="border-l-4 border-hair pl-3">
			<Choices label="Known already?" value={said.person} onChange={onChoose}>
				{rows.map((one) => (
					<Choice
						key={one.id}
						value={String(one.id)}
						under={`${one.reach}; ${one.projects} project${one.projects === 1 ? "" : "s"}${one.lastContact ? `, last contact ${one.lastContact}` : ""}`}
					>
						{one.name}
						{one.organisation && `, ${one.organisation}`}
					</Choice>
				))}
				<Choice value="">Somebody new</Choice>
			</Choices>
		</div>
	);
}
