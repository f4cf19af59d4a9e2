import { type FormEvent, useState } from "react";
import { answer, api } from "../api/client";
import type { Refusal } from "../api/refusal";
import type { ClientFileDto, RoundDto } from "../api/schema";
import { Button } from "../ui/Button";
import { Refused } from "../ui/Refused";
import { TextArea } from "../ui/TextArea";
import type { PartProps } from "./Parts";

/** Drafts, round by round, newest first; the open one can be answered. */
export default function Rounds({ page, link, reload, files }: PartProps) {
	const { rounds, agreed } = page.parts.drafts!;
	return (
		<section id="drafts">
			<h2 className="rule pb-1.5">Drafts</h2>
			{rounds.length === 0 && (
				<p className="pt-2 text-soft">
					The first draft stands here when it is ready. {agreed} round
					{agreed === 1 ? "" : "s"} of changes {agreed === 1 ? "is" : "are"}{" "}
					included.
				</p>
			)}
			{rounds.map((round) => (
				<Round
					key={round.id}
					round={round}
					link={link}
					reload={reload}
					owner={page.studio.owner}
					files={files}
				/>
			))}
		</section>
	);
}

const states: Record<RoundDto["state"], string> = {
	Open: "waits for you since",
	Returned: "you asked for changes,",
	Approved: "you said yes,",
	Withdrawn: "taken back,",
};

function Round({
	round,
	link,
	reload,
	owner,
	files,
}: Omit<PartProps, "page"> & { round: RoundDto; owner: string }) {
	const open = round.state === "Open";
	return (
		<article aria-label={round.title} className="border-b border-hair py-4">
			<h3>{round.title}</h3>
			<p className="under">
				{states[round.state]} {round.when}
			</p>
			<div className="grid gap-3 pt-2">
				{round.files.map((file) => (
					<Draft key={file.id} file={file} link={link} files={files} />
				))}
			</div>
			{round.said.map((said) => (
				<p
					key={`${said.at}${said.text}`}
					className="mt-2 border-l-2 border-ink pl-3 whitespace-pre-line"
				>
					{said.text}
					<span className="under block">{said.at}</span>
				</p>
			))}
			{open && (
				<Answer round={round} link={link} reload={reload} owner={owner} />
			)}
		</article>
	);
}

function Draft({
	file,
	link,
	files,
}: {
	file: ClientFileDto;
	link: string;
	files?: string;
}) {
	const address = `${files ?? `/p/${link}/api`}/files/${file.id}`;
	return (
		<figure>
			{file.hasPreview && (
				<img
					src={`${address}/preview`}
					alt={`Preview of ${file.name}`}
					className="max-h-96 w-full border border-hair object-contain"
				/>
			)}
			<figcaption className="pt-1">
				<Button asChild kind="word">
					<a href={address}>{file.name}</a>
				</Button>{" "}
				<span className="text-soft">{file.about}</span>
			</figcaption>
		</figure>
	);
}

function Answer({
	round,
	link,
	reload,
	owner,
}: {
	round: RoundDto;
	link: string;
	reload: () => Promise<void>;
	owner: string;
}) {
	const [words, setWords] = useState("");
	const [refusal, setRefusal] = useState<Refusal>();
	const [busy, setBusy] = useState(false);
	async function say(how: "remark" | "changes" | "approve") {
		setBusy(true);
		setRefusal(undefined);
		try {
			const params = { path: { link, round: round.id } };
			await answer(
				how === "approve"
					? api.POST("/p/{link}/api/rounds/{round}/approve", { params })
					: how === "changes"
						? api.POST("/p/{link}/api/rounds/{round}/changes", {
								params,
								body: { words },
							})
						: api.POST("/p/{link}/api/rounds/{round}/remark", {
								params,
								body: { words },
							}),
			);
			setWords("");
			await reload();
		} catch (error) {
			setRefusal(error as Refusal);
		}
		setBusy(false);
	}
	const submit = (event: FormEvent) => {
		event.preventDefault();
		say("remark");
	};
	return (
		<form onSubmit={submit} className="mt-4 grid gap-3 bg-plaster p-4">
			<TextArea
				label="What do you see?"
				rows={3}
				hint={`only ${owner} reads it`}
				value={words}
				wrong={refusal?.of("words")}
				onChange={(e) => setWords(e.target.value)}
			/>
			{round.last && (
				<p className="font-[650]">
					This is the last round that is included. {owner} and you agree on a
					further one before it begins.
				</p>
			)}
			{round.beyond && (
				<p className="font-[650]">This round goes beyond what is included.</p>
			)}
			<Refused of={refusal} />
			<div className="flex flex-wrap gap-2">
				<Button
					kind="brand"
					className="py-2.5"
					disabled={busy}
					onClick={() => say("approve")}
				>
					It is good as it is
				</Button>
				<Button
					className="py-2.5"
					disabled={busy}
					onClick={() => say("changes")}
				>
					Ask for these changes
				</Button>
				<Button className="py-2.5" type="submit" disabled={busy}>
					Only leave a remark
				</Button>
			</div>
		</form>
	);
}
