import { type ReactNode, useEffect, useId, useState } from "react";
import type { ChoiceLineDto, ClientPageDto, PricedDto } from "../api/schema";
import { Alert, TextArea } from "../ui/Fields";
import { get, post, type Refusal } from "../ui/http";
import { Sum } from "./Sum";

type Props = { page: ClientPageDto; base: string; onDone: () => void };

/** Choosing: total and instalments change at once, computed by the server. */
export function Choose({
	page,
	base,
	onDone,
	onBack,
}: Props & {
	/** Back to the contract of the choice made before. */
	onBack?: () => void;
}) {
	const proposal = page.proposal!;
	const [chosen, setChosen] = useState(() => proposal.priced.chosen);
	const [priced, setPriced] = useState<PricedDto>(proposal.priced);
	const [error, setError] = useState<Refusal>();
	const [busy, setBusy] = useState(false);
	useOpened(base);

	useEffect(() => {
		let newest = true;
		get<PricedDto>(
			`${base}/price?${chosen.map((key) => `choose=${encodeURIComponent(key)}`).join("&")}`,
		).then(
			(answer) => newest && setPriced(answer),
			(refusal) => newest && setError(refusal),
		);
		return () => {
			newest = false;
		};
	}, [base, chosen]);

	async function accept() {
		setBusy(true);
		try {
			await post(`${base}/accept`, { chosen });
			onDone();
		} catch (refusal) {
			setError(refusal as Refusal);
			setBusy(false);
		}
	}

	const of = (role: ChoiceLineDto["role"]) =>
		proposal.lines.filter((line) => line.role === role);
	const groups = [...new Set(of("OneOf").map((line) => line.group ?? ""))];
	return (
		<div className="grid gap-8 md:grid-cols-[1fr_360px] md:gap-14">
			<div>
				<h1 className="mt-1 mb-2 text-[28px] md:text-[32px]">{page.project}</h1>
				{proposal.intro && <p className="mb-4 max-w-xl">{proposal.intro}</p>}
				{of("Included").length > 0 && <Group title="Included" />}
				{of("Included").map((line) => (
					<Line key={line.key} line={line} mark={() => <Box />} />
				))}
				{groups.map((group) => (
					<fieldset key={group}>
						<legend className="contents">
							<Group title="Choose one" />
						</legend>
						{of("OneOf")
							.filter((line) => (line.group ?? "") === group)
							.map((line) => (
								<Line
									key={line.key}
									line={line}
									mark={(id) => (
										<input
											id={id}
											type="radio"
											name={group}
											className="relative z-10 mt-1 size-5 accent-(--brand)"
											checked={chosen.includes(line.key)}
											onChange={() =>
												setChosen((before) => [
													...before.filter(
														(key) =>
															proposal.lines.find((l) => l.key === key)
																?.group !== line.group,
													),
													line.key,
												])
											}
										/>
									)}
								/>
							))}
					</fieldset>
				))}
				{of("Extra").length > 0 && <Group title="Add if you like" />}
				{of("Extra").map((line) => (
					<Line
						key={line.key}
						line={line}
						mark={(id) => (
							<input
								id={id}
								type="checkbox"
								className="relative z-10 mt-1 size-5 accent-(--brand)"
								checked={chosen.includes(line.key)}
								onChange={(e) =>
									setChosen((before) =>
										e.target.checked
											? [...before, line.key]
											: before.filter((key) => key !== line.key),
									)
								}
							/>
						)}
					/>
				))}
				{proposal.terms && (
					<p className="pt-5 whitespace-pre-line text-soft">{proposal.terms}</p>
				)}
			</div>
			<Sum title="Your choice" priced={priced}>
				{error && (
					<div className="pt-3">
						<Alert>{error.message}</Alert>
					</div>
				)}
				{proposal.ranOut ? (
					<p className="pt-3 font-semibold">
						This proposal was valid until {proposal.validUntil}. Ask for a new
						one below.
					</p>
				) : (
					<button
						type="button"
						className="btn btn-brand mt-4 w-full py-3 text-[16px]"
						disabled={busy}
						onClick={accept}
					>
						Choose this and go on to sign
					</button>
				)}
				{onBack ? (
					<button
						type="button"
						className="link mt-3 w-full text-center font-head text-[14.5px] font-semibold text-brand"
						onClick={onBack}
					>
						Keep what I chose
					</button>
				) : (
					<AskForChange page={page} base={base} onDone={onDone} />
				)}
			</Sum>
		</div>
	);
}

function AskForChange({ page, base, onDone }: Props) {
	const [open, setOpen] = useState(false);
	const [words, setWords] = useState("");
	const [wrong, setWrong] = useState<string>();
	const [said, setSaid] = useState(page.askedForChange);
	async function say(what: "change" | "decline") {
		try {
			await post(`${base}/${what}`, { words });
			setSaid(true);
			setOpen(false);
			onDone();
		} catch (refusal) {
			setWrong((refusal as Refusal).message);
		}
	}
	return (
		<div className="pt-3 text-center">
			{said && (
				<p role="status" className="pb-2">
					{page.owner} has your words and will answer.
				</p>
			)}
			<button
				type="button"
				className="link font-head text-[14.5px] font-semibold text-brand"
				aria-expanded={open}
				onClick={() => setOpen(!open)}
			>
				Ask for a change
			</button>
			{open && (
				<div className="grid gap-2 pt-3 text-left">
					<TextArea
						label="What should be different?"
						rows={3}
						value={words}
						wrong={wrong}
						onChange={(e) => setWords(e.target.value)}
					/>
					<div className="flex flex-wrap gap-2">
						<button type="button" className="btn" onClick={() => say("change")}>
							Send your words
						</button>
						<button
							type="button"
							className="btn"
							onClick={() => say("decline")}
						>
							Decline the proposal
						</button>
					</div>
				</div>
			)}
		</div>
	);
}

/** Tells once that the page was in view for two seconds; a hint for the owner, never a reproach. */
function useOpened(base: string) {
	useEffect(() => {
		let timer: ReturnType<typeof setTimeout> | undefined;
		const watch = () => {
			clearTimeout(timer);
			if (document.visibilityState === "visible")
				timer = setTimeout(() => {
					document.removeEventListener("visibilitychange", watch);
					post(`${base}/opened`).catch(() => undefined);
				}, 2000);
		};
		watch();
		document.addEventListener("visibilitychange", watch);
		return () => {
			clearTimeout(timer);
			document.removeEventListener("visibilitychange", watch);
		};
	}, [base]);
}

function Group({ title }: { title: string }) {
	return (
		<div className="pt-4 pb-2 font-head text-[15px] font-[650]">{title}</div>
	);
}

/** What is included is ticked for good: a sign, not a control. */
function Box() {
	return (
		<span
			className="mt-1 grid size-5 place-items-center border-[1.5px] border-brand"
			aria-hidden="true"
		>
			<span className="size-2.5 bg-brand" />
		</span>
	);
}

/** A line with what chooses it; the whole row is its label. */
function Line({
	line,
	mark,
}: {
	line: ChoiceLineDto;
	mark: (id: string) => ReactNode;
}) {
	const id = useId();
	const words = (
		<>
			{line.words}
			{line.detail && (
				<span className="block text-[14.5px] text-soft">{line.detail}</span>
			)}
		</>
	);
	return (
		<div className="relative grid grid-cols-[26px_1fr_auto] gap-3 border-t border-hair py-3">
			{mark(id)}
			{line.role === "Included" ? (
				<div>{words}</div>
			) : (
				<label htmlFor={id} className="after:absolute after:inset-0">
					{words}
				</label>
			)}
			<span className="num font-[650] whitespace-nowrap">{line.price}</span>
		</div>
	);
}
