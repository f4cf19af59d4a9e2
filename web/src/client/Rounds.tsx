import { type FormEvent, useState } from "react";
import { answer, api } from "../api/client";
import type { Refusal } from "../api/refusal";
import type { ClientFileDto, PinDto, RoundDto } from "../api/schema";
import { Button } from "../ui/Button";
import { Refused } from "../ui/Refused";
import { TextArea } from "../ui/TextArea";
import { Draft, pinWords } from "./Draft";
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
			{rounds.map((round, at) => (
				<Round
					key={round.id}
					round={round}
					before={rounds[at + 1]}
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
	before,
	link,
	reload,
	owner,
	files,
}: Omit<PartProps, "page"> & {
	round: RoundDto;
	/** The round before it, to be looked at beside. */
	before?: RoundDto;
	owner: string;
}) {
	const [pin, setPin] = useState<PinDto>();
	const [beside, setBeside] = useState(false);
	const open = round.state === "Open";
	const numbered = (of: RoundDto) =>
		of.said.map((one, at) => ({ ...one, number: at + 1 }));
	return (
		<article aria-label={round.title} className="border-b border-hair py-4">
			<h3>{round.title}</h3>
			<p className="under">
				{states[round.state]} {round.when}
			</p>
			{before && before.files.length > 0 && (
				<Button
					kind="word"
					aria-pressed={beside}
					onClick={() => setBeside(!beside)}
				>
					{beside ? "Only this round" : `Beside ${before.title}`}
				</Button>
			)}
			<div className={beside ? "grid gap-4 pt-2 md:grid-cols-2" : "pt-2"}>
				{beside && before && (
					<div className="grid content-start gap-3">
						<h4 className="text-soft">{before.title}</h4>
						{before.files.map((file) => (
							<Draft
								key={file.id}
								file={file}
								said={numbered(before)}
								link={link}
								files={files}
							/>
						))}
					</div>
				)}
				<div className="grid content-start gap-3">
					{beside && <h4 className="text-soft">{round.title}</h4>}
					{open && !files && round.files.some(isPressed) && (
						<p className="under">
							Press on the draft to say something about that place.
						</p>
					)}
					{round.files.map((file) => (
						<Draft
							key={file.id}
							file={file}
							said={numbered(round)}
							link={link}
							files={files}
							past={!open && !beside}
							pin={pin}
							onPin={open && !files ? setPin : undefined}
						/>
					))}
				</div>
			</div>
			{round.said.map((said, at) => (
				<p
					key={`${said.at}${said.text}`}
					className="mt-2 border-l-2 border-ink pl-3 whitespace-pre-line"
				>
					{said.pin && (
						<b className="font-[650]">
							{at + 1}
							{said.where && `, ${said.where}`}:{" "}
						</b>
					)}
					{said.text}
					<span className="under block">{said.at}</span>
				</p>
			))}
			{open && (
				<Answer
					round={round}
					link={link}
					reload={reload}
					owner={owner}
					pin={pin}
					onPin={setPin}
				/>
			)}
		</article>
	);
}

const isPressed = ({ look }: ClientFileDto) =>
	look === "Picture" || look === "Pages";

function Answer({
	round,
	link,
	reload,
	owner,
	pin,
	onPin,
}: {
	round: RoundDto;
	link: string;
	reload: () => Promise<void>;
	owner: string;
	pin: PinDto | undefined;
	onPin: (pin: PinDto | undefined) => void;
}) {
	const [words, setWords] = useState("");
	const [refusal, setRefusal] = useState<Refusal>();
	const [busy, setBusy] = useState(false);
	async function say(how: "remark" | "changes" | "approve") {
		setBusy(true);
		setRefusal(undefined);
		try {
			await answer(
				api.POST(`/p/{link}/api/rounds/{round}/${how}`, {
					params: { path: { link, round: round.id } },
					body: { words, pin: pin ?? null },
				}),
			);
			setWords("");
			onPin(undefined);
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
			{pin && (
				<p className="flex flex-wrap gap-x-3">
					<span>About {pinWords(pin)}.</span>
					<Button kind="word" onClick={() => onPin(undefined)}>
						About all of it instead
					</Button>
				</p>
			)}
			{refusal?.of("pin") && <p className="wrong">{refusal.of("pin")}</p>}
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
