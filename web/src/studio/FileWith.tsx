import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../api/client";
import { Button } from "../ui/Button";
import { TextField } from "../ui/TextField";

/** Finds a project by a few letters. */
export function FileWith({
	onChoose,
	label = "File with",
}: {
	onChoose: (project: number, title: string) => void;
	label?: string;
}) {
	const [words, setWords] = useState("");
	const found = useQuery({
		queryKey: ["over", "found", "project", words],
		queryFn: () =>
			answer(api.GET("/api/search", { params: { query: { words } } })),
		enabled: words.trim().length > 1,
	});
	const hits = (words.trim().length > 1 ? (found.data ?? []) : []).filter(
		(hit) => hit.sort === "Project",
	);
	return (
		<div className="relative w-52">
			<TextField
				label={label}
				hidden
				placeholder={`${label} …`}
				value={words}
				onChange={(e) => setWords(e.target.value)}
			/>
			{hits.length > 0 && (
				<ul className="absolute z-10 w-full border-[1.5px] border-ink bg-sheet">
					{hits.slice(0, 5).map((hit) => (
						<li key={hit.key}>
							<Button
								kind="line"
								className="w-full px-2 py-1 hover:bg-plaster"
								onClick={() => {
									setWords("");
									if (hit.project) onChoose(hit.project, hit.title);
								}}
							>
								{hit.title}
							</Button>
						</li>
					))}
				</ul>
			)}
		</div>
	);
}
