import { useQuery } from "@tanstack/react-query";
import { Command } from "cmdk";
import { useEffect, useState } from "react";
import { useNavigate } from "react-router";
import { answer, api } from "../api/client";
import type { FoundDto, FoundSort } from "../api/schema";
import { Window } from "../ui/Window";
import { beginInquiry } from "./beginInquiry";
import { askCover } from "./cover/useCover";

const sorts: Record<FoundSort, string> = {
	Project: "project",
	Person: "person",
	Letter: "letter",
	File: "file",
	Paper: "invoice",
	Note: "note",
	Answers: "answers",
	Brief: "brief",
	Task: "task",
	Meeting: "meeting",
	Proposal: "proposal",
	Contract: "contract",
	List: "list",
	Entry: "list",
};

/** Where a hit is read: its entry of the line, its part of the sheet, or the tray of what is not filed. */
const placeOf = (hit: FoundDto) => {
	if (hit.person) return `/people/${hit.person}`;
	if (hit.list)
		return `${hit.project ? `/projects/${hit.project}` : ""}/lists/${hit.list}`;
	if (!hit.project) return "/tray";
	const project = `/projects/${hit.project}`;
	if (hit.opens) return `${project}?open=${hit.opens}`;
	const part = { Brief: "Brief", Task: "Open tasks", File: "Files" }[
		hit.sort as string
	];
	return part ? `${project}?sheet=${encodeURIComponent(part)}` : project;
};
const places: { words: string; to?: string; act?: () => void }[] = [
	{ words: "Go to Today", to: "/today" },
	{ words: "Go to Turns", to: "/turns" },
	{ words: "Go to the Register", to: "/register" },
	{ words: "Go to the Season", to: "/season" },
	{ words: "Go to the Week", to: "/week" },
	{ words: "Go to Money", to: "/money" },
	{ words: "Go to Reports", to: "/reports" },
	{ words: "Go to Invoices", to: "/money/invoices" },
	{ words: "Go to the bank", to: "/money/bank" },
	{ words: "Go to Accounts", to: "/money/accounts" },
	{ words: "Go to Accountant", to: "/money/accountant" },
	{ words: "Go to People", to: "/people" },
	{ words: "Go to Templates", to: "/templates" },
	{ words: "Go to the tray", to: "/tray" },
	{ words: "Go to the studio: hours, meetings, calendars", to: "/studio" },
	{ words: "Take over a table", to: "/import" },
	{ words: "Take down a new inquiry", act: () => beginInquiry() },
	{ words: "Write down a cost", to: "/money?write=cost" },
	{ words: "Write down other income", to: "/money?write=income" },
	{ words: "Keep a time in the Week", to: "/week?keep=new" },
	{ words: "Hide names and amounts, or show them again", act: askCover },
];

/** Finds anything that is written in the studio, and the places. */
export default function Find({ onClose }: { onClose: () => void }) {
	const [words, setWords] = useState("");
	const [asked, setAsked] = useState("");
	const navigate = useNavigate();
	useEffect(() => {
		const timer = setTimeout(() => setAsked(words.trim()), 120);
		return () => clearTimeout(timer);
	}, [words]);
	const found = useQuery({
		queryKey: ["over", "found", asked],
		queryFn: () =>
			answer(api.GET("/api/search", { params: { query: { words: asked } } })),
		enabled: asked.length > 0,
		placeholderData: (before) => before,
	});
	const go = (to: string) => {
		onClose();
		navigate(to);
	};
	const labels = useQuery({
		queryKey: ["over", "labels"],
		queryFn: () => answer(api.GET("/api/labels")),
	});
	const hits = asked ? (found.data ?? []) : [];
	const labelled = asked
		? (labels.data ?? []).filter((label) =>
				label.startsWith(asked.toLowerCase()),
			)
		: [];
	const going = places.filter((place) =>
		place.words.toLowerCase().includes(words.trim().toLowerCase()),
	);
	const first =
		hits[0]?.key ?? (labelled[0] && `label:${labelled[0]}`) ?? going[0]?.words;
	const [chosen, setChosen] = useState<string>();
	// what is found comes later than the words: Enter opens the best of it
	// a choice made by the arrows stays while the same is found
	useEffect(() => setChosen(first), [first, asked]);
	return (
		<Window title="Find" open onClose={onClose} wide>
			<Command
				shouldFilter={false}
				label="Find"
				value={chosen ?? ""}
				onValueChange={setChosen}
			>
				<Command.Input
					autoFocus
					className="w-full border-b-[1.5px] border-ink bg-transparent px-2 py-2"
					placeholder="A project, person, number, or any word of it"
					value={words}
					onValueChange={setWords}
				/>
				<Command.List className="max-h-[56vh] overflow-auto pt-2">
					{asked && found.isSuccess && hits.length + labelled.length === 0 && (
						<Command.Empty className="py-2 text-soft">
							Nothing is called so, nor nearly so.
						</Command.Empty>
					)}
					{hits.map((hit) => (
						<Command.Item
							key={hit.key}
							value={hit.key}
							className="flex gap-3 border-b border-hair px-1 py-1.5 data-[selected=true]:bg-plaster"
							onSelect={() => go(placeOf(hit))}
						>
							<span className="w-16 shrink-0 text-small text-soft">
								{sorts[hit.sort]}
							</span>
							<span className="min-w-0">
								<b className="font-[650]">{hit.title}</b>
								<span className="under block truncate">{hit.words}</span>
							</span>
						</Command.Item>
					))}
					{labelled.map((label) => (
						<Command.Item
							key={label}
							value={`label:${label}`}
							className="flex gap-3 border-b border-hair px-1 py-1.5 data-[selected=true]:bg-plaster"
							onSelect={() => go(`/labels/${encodeURIComponent(label)}`)}
						>
							<span className="w-16 shrink-0 text-small text-soft">label</span>
							{label}
						</Command.Item>
					))}
					{going.map((place) => (
						<Command.Item
							key={place.words}
							value={place.words}
							className="flex gap-3 border-b border-hair px-1 py-1.5 data-[selected=true]:bg-plaster"
							onSelect={() => {
								if (place.to) return go(place.to);
								onClose();
								place.act?.();
							}}
						>
							<span className="w-16 shrink-0 text-small text-soft">place</span>
							{place.words}
						</Command.Item>
					))}
				</Command.List>
			</Command>
		</Window>
	);
}
