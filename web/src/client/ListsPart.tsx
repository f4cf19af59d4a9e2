import { useState } from "react";
import { answer, api, upload } from "../api/client";
import type { Refusal } from "../api/refusal";
import type { ListDto, PagePart } from "../api/schema";
import { Button } from "../ui/Button";
import type { ListActs } from "../ui/lists/acts";
import { Entries } from "../ui/lists/Entries";
import { Refused } from "../ui/Refused";
import { AskPart } from "./AskPart";
import type { PartProps } from "./Parts";

/** Lists, boards or notes that are shown: read, or changed where they may be. */
export default function ListsPart({
	title,
	part,
	lists,
	page,
	link,
	reload,
	files,
}: PartProps & { title: string; part: PagePart; lists: readonly ListDto[] }) {
	return (
		<section aria-label={title}>
			<h2 className="rule pb-1.5">{title}</h2>
			{lists.length === 0 && <p className="py-2">Nothing is here yet.</p>}
			{lists.map((list) => (
				<section
					key={list.id}
					id={`list-${list.id}`}
					aria-label={list.name}
					className="pt-3 pb-4"
				>
					<h3 className="pb-1">{list.name}</h3>
					<p className="pb-2 text-soft">{about(list, page.studio.owner)}</p>
					<Entries
						list={list}
						base={
							files
								? `/api/lists/${list.id}`
								: `/p/${link}/api/lists/${list.id}`
						}
						acts={
							files || page.readOnly ? undefined : actsOf(list, link, reload)
						}
					/>
					{list.hash && !files && !page.readOnly && (
						<Approve list={list} link={link} reload={reload} />
					)}
				</section>
			))}
			{!files && (
				<AskPart
					part={part}
					link={link}
					owner={page.studio.owner}
					reload={reload}
				/>
			)}
		</section>
	);
}

function about(list: ListDto, owner: string) {
	if (list.hash) return "This is the final board: is it right?";
	if (list.state) return list.state[0]?.toUpperCase() + list.state.slice(1);
	if (!list.edits) return "For you to read.";
	return list.sort === "Board"
		? `Add pictures, and strike out what does not fit; it stays here, and can be put back. ${owner} sees what you changed.`
		: `You can change it; ${owner} sees what you changed.`;
}

function actsOf(
	list: ListDto,
	link: string,
	reload: () => Promise<void>,
): ListActs {
	const path = (key: string) => ({ link, list: list.id, key });
	const doing = async (what: Promise<unknown>) => {
		await what;
		await reload();
	};
	return {
		save: (key, edition, cells) =>
			doing(
				answer(
					api.PUT("/p/{link}/api/lists/{list}/entries/{key}", {
						params: { path: path(key) },
						body: { edition, cells },
					}),
				),
			),
		strike: (entry, struck) =>
			doing(
				answer(
					api.POST("/p/{link}/api/lists/{list}/entries/{key}/struck", {
						params: { path: path(entry.key) },
						body: { struck },
					}),
				),
			),
		addPictures: async (files) => {
			try {
				for (const file of files)
					await upload(
						`/p/${link}/api/lists/${list.id}/pictures?${new URLSearchParams({ name: file.name })}`,
						file,
					);
			} finally {
				await reload();
			}
		},
	};
}

function Approve({
	list,
	link,
	reload,
}: {
	list: ListDto;
	link: string;
	reload: () => Promise<void>;
}) {
	const [refusal, setRefusal] = useState<Refusal>();
	async function approve() {
		try {
			await answer(
				api.POST("/p/{link}/api/lists/{list}/approve", {
					params: { path: { link, list: list.id } },
					body: { hash: list.hash ?? "" },
				}),
			);
			setRefusal(undefined);
			await reload();
		} catch (error) {
			setRefusal(error as Refusal);
		}
	}
	return (
		<div className="grid gap-2 pt-3">
			<Refused of={refusal} />
			<div>
				<Button kind="brand" onClick={approve}>
					This is right
				</Button>
			</div>
		</div>
	);
}
