import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link } from "react-router";
import { answer, api } from "../../api/client";
import { Button } from "../../ui/Button";
import { Select } from "../../ui/Select";
import { Shown } from "../../ui/Shown";
import { useNarrowing, WordsField } from "../narrowing";
import { SignedTable } from "./SignedTable";

/** All signed papers of all clients. */
export default function Signed() {
	const { search, set } = useNarrowing();
	const number = (name: string) =>
		search.get(name) ? Number(search.get(name)) : undefined;
	const voided = search.get("voided");
	const papers = useQuery({
		queryKey: ["over", "signed", search.toString()],
		queryFn: () =>
			answer(
				api.GET("/api/papers/signed", {
					params: {
						query: {
							words: search.get("words") ?? undefined,
							kind: number("kind"),
							year: number("year"),
							voided: voided === null ? undefined : voided === "true",
							most: number("most"),
						},
					},
				}),
			),
		placeholderData: (before) => before,
	});
	useEffect(() => {
		document.title = "Signed papers, Gesamt";
	}, []);
	return (
		<main className="px-5 pb-8 max-md:px-4">
			<div className="flex flex-wrap items-end gap-3 pt-4 pb-3">
				<h1 className="mr-3">Signed papers</h1>
				<WordsField
					label="Client or project"
					value={search.get("words") ?? ""}
					onChange={(words) => set("words", words)}
				/>
				<Select
					label="Kind"
					value={search.get("kind") ?? ""}
					onChange={(e) => set("kind", e.target.value)}
				>
					<option value="">any</option>
					{papers.data?.kinds.map((kind) => (
						<option key={kind.id} value={kind.id}>
							{kind.name}
						</option>
					))}
				</Select>
				<Select
					label="Year"
					value={search.get("year") ?? ""}
					onChange={(e) => set("year", e.target.value)}
				>
					<option value="">any</option>
					{papers.data?.years.map((year) => (
						<option key={year}>{year}</option>
					))}
				</Select>
				<Select
					label="Standing"
					value={voided ?? ""}
					onChange={(e) => set("voided", e.target.value)}
				>
					<option value="">all</option>
					<option value="false">in force</option>
					<option value="true">voided</option>
				</Select>
				<div className="ml-auto flex gap-2 max-md:ml-0">
					<Button asChild>
						<Link to="/people">People</Link>
					</Button>
					<Button asChild>
						<a href="/check">Is a file the sealed one?</a>
					</Button>
				</div>
			</div>
			<Shown query={papers}>
				{(data) => (
					<>
						<SignedTable rows={data.rows} />
						{data.more > 0 && (
							<Button
								className="mt-3"
								onClick={() =>
									set(
										"most",
										String(data.rows.length + Math.min(400, data.more)),
									)
								}
							>
								Show more: {data.more} besides these
							</Button>
						)}
					</>
				)}
			</Shown>
		</main>
	);
}
