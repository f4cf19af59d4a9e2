import { type QueryClient, useQueryClient } from "@tanstack/react-query";
import { useMemo } from "react";
import { answer, api, upload } from "../../api/client";
import type { EntryKeyDto, ListDto } from "../../api/schema";
import type { ListActs } from "../../ui/lists/acts";
import { nameOf } from "../../ui/lists/acts";
import { useUndo } from "../../ui/Undo";

/** What the owner does with the entries of a list; each is fetched anew once it is done. */
export function useListActs(list: ListDto): ListActs {
	const queries = useQueryClient();
	const offer = useUndo();
	const id = list.id;
	// the same while the list is: its rows need not be drawn anew
	return useMemo(() => actsOf(id, queries, offer), [id, queries, offer]);
}

function actsOf(
	id: string,
	queries: QueryClient,
	offer: ReturnType<typeof useUndo>,
): ListActs {
	const again = () =>
		queries.invalidateQueries({ queryKey: ["over", "list", id] });
	const doing = async (what: Promise<unknown>) => {
		await what;
		await again();
	};
	const removed = (key: string, to: boolean) =>
		doing(
			answer(
				api.POST("/api/lists/{list}/entries/{key}/removed", {
					params: { path: { list: id, key } },
					body: { removed: to },
				}),
			),
		);
	return {
		save: (key, edition, cells) =>
			doing(
				answer(
					api.PUT("/api/lists/{list}/entries/{key}", {
						params: { path: { list: id, key } },
						body: { edition, cells },
					}),
				),
			),
		strike: (entry, struck) =>
			doing(
				answer(
					api.POST("/api/lists/{list}/entries/{key}/struck", {
						params: { path: { list: id, key: entry.key } },
						body: { struck },
					}),
				),
			),
		takeOut: async (entry) => {
			await removed(entry.key, true);
			offer({
				words: `Taken out: ${nameOf(entry)}`,
				undo: () => removed(entry.key, false),
			});
		},
		order: (keys) =>
			doing(
				answer(
					api.PUT("/api/lists/{list}/order", {
						params: { path: { list: id } },
						body: { keys },
					}),
				),
			),
		done: (key, column, done) =>
			doing(
				answer(
					api.POST("/api/lists/{list}/entries/{key}/steps/{column}/done", {
						params: { path: { list: id, key, column } },
						body: { done },
					}),
				),
			).catch((refused: Error) =>
				// a tick in a table has no place for words
				offer({ words: refused.message, stays: true }),
			),
		addPictures: async (files) => {
			try {
				// in the order in which they were dropped
				for (const file of files)
					await upload<EntryKeyDto>(
						`/api/lists/${id}/pictures?${new URLSearchParams({ name: file.name })}`,
						file,
					);
			} finally {
				await again();
			}
		},
	};
}
