import { useEffect, useState } from "react";
import { answer, api } from "../api/client";
import type { Refusal } from "../api/refusal";
import type { ChoiceLineDto, ClientPageDto, PricedDto } from "../api/schema";
import { Alert } from "../ui/Alert";
import { Button } from "../ui/Button";
import { Choice, Choices } from "../ui/Choice";
import { Tick } from "../ui/Tick";
import { AskForChange } from "./AskForChange";
import { Offered } from "./Offered";
import { Sum } from "./Sum";
import { useOpened } from "./useOpened";

export type Props = { page: ClientPageDto; link: string; onDone: () => void };

/** Choosing: total and instalments change at once, computed by the server. */
export function Choose({
	page,
	link,
	onDone,
	onBack,
}: Props & {
	/** Back to the contract of the choice made before. */
	onBack?: () => void;
}) {
	const proposal = page.booking.proposal!;
	const [chosen, setChosen] = useState(() => proposal.priced.chosen);
	const [priced, setPriced] = useState<PricedDto>(proposal.priced);
	const [error, setError] = useState<Refusal>();
	const [busy, setBusy] = useState(false);
	useOpened(link);

	useEffect(() => {
		let newest = true;
		answer(
			api.GET("/p/{link}/api/price", {
				params: { path: { link }, query: { choose: chosen } },
			}),
		).then(
			(now) => newest && setPriced(now),
			(refusal: Refusal) => newest && setError(refusal),
		);
		return () => {
			newest = false;
		};
	}, [link, chosen]);

	async function accept() {
		setBusy(true);
		try {
			await answer(
				api.POST("/p/{link}/api/accept", {
					params: { path: { link } },
					body: { chosen },
				}),
			);
			onDone();
		} catch (refusal) {
			setError(refusal as Refusal);
			setBusy(false);
		}
	}

	const lineOf = (key: string) =>
		proposal.lines.find((line) => line.key === key);
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
					<div
						key={line.key}
						className="flex gap-2.5 border-t border-hair py-3"
					>
						<Box />
						<Offered line={line} />
					</div>
				))}
				{groups.map((group) => (
					<Choices
						key={group}
						label={<Group title="Choose one" />}
						value={chosen.find((key) => lineOf(key)?.group === group)}
						className=""
						onChange={(key) =>
							setChosen((before) => [
								...before.filter((one) => lineOf(one)?.group !== group),
								key,
							])
						}
					>
						{of("OneOf")
							.filter((line) => (line.group ?? "") === group)
							.map((line) => (
								<Choice
									key={line.key}
									value={line.key}
									className="border-t border-hair py-3"
								>
									<Offered line={line} />
								</Choice>
							))}
					</Choices>
				))}
				{of("Extra").length > 0 && <Group title="Add if you like" />}
				{of("Extra").map((line) => (
					<Tick
						key={line.key}
						label={<Offered line={line} />}
						className="border-t border-hair py-3"
						checked={chosen.includes(line.key)}
						onChange={(checked) =>
							setChosen((before) =>
								checked
									? [...before, line.key]
									: before.filter((key) => key !== line.key),
							)
						}
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
					<Button
						kind="brand"
						size="big"
						className="mt-4 w-full"
						disabled={busy}
						onClick={accept}
					>
						Choose this and go on to sign
					</Button>
				)}
				{onBack ? (
					<Button
						kind="word"
						className="mt-3 w-full text-center font-head text-[14.5px] font-semibold text-brand"
						onClick={onBack}
					>
						Keep what I chose
					</Button>
				) : (
					<AskForChange page={page} link={link} onDone={onDone} />
				)}
			</Sum>
		</div>
	);
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
