import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../../api/client";
import type { Refusal } from "../../api/refusal";
import type { ImportDoneDto, MatchingDto } from "../../api/schema";
import { Shown } from "../../ui/Shown";
import { Match } from "./MatchColumns";
import { Taken } from "./TakenOver";

export const states: Record<ImportDoneDto["state"], (made: number) => string> =
	{
		Matching: () => "not taken over yet",
		Running: (made) => `going on, ${made} so far`,
		Done: (made) => `${made} taken over`,
		Failed: (made) => `stopped after ${made}`,
		Undone: () => "taken back",
	};

export function One({ id }: { id: number }) {
	const [matching, setMatching] = useState<MatchingDto>();
	const table = useQuery({
		queryKey: ["import", id],
		queryFn: () =>
			answer(api.GET("/api/imports/{id}", { params: { path: { id } } })),
		refetchInterval: (query) =>
			query.state.data?.state === "Running" ? 400 : false,
	});
	const tried = useQuery({
		queryKey: ["import-tried", id, matching],
		queryFn: () =>
			answer(
				api.POST("/api/imports/{id}/preview", {
					params: { path: { id } },
					body: matching!,
				}),
			),
		enabled: matching !== undefined && table.data?.state === "Matching",
		placeholderData: (before) => before,
		retry: false,
	});
	return (
		<Shown query={table}>
			{(data) =>
				data.state === "Matching" ? (
					<Match
						table={{
							...(tried.data ?? data),
							matching: matching ?? data.matching,
						}}
						problem={tried.error as Refusal | null}
						onChange={setMatching}
					/>
				) : (
					<Taken table={data} />
				)
			}
		</Shown>
	);
}
