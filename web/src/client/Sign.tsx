import { type FormEvent, useState } from "react";
import { answer, api } from "../api/client";
import type { Refusal } from "../api/refusal";
import type { ContractPageDto, SigningTurnDto } from "../api/schema";
import { Blocks } from "../ui/Blocks";
import { Button } from "../ui/Button";
import { Refused } from "../ui/Refused";
import { TextField } from "../ui/TextField";
import { Tick } from "../ui/Tick";
import { AskOfContract } from "./Ask";
import type { Props } from "./Choose";
import { Differences } from "./Differences";
import { Signatures } from "./Signatures";

/** Reading the contract, filled with exactly the choice, and signing it by typing one's name. */
export function Sign({ page, link, onDone }: Props) {
	const contract = page.booking.contract!;
	const { turn } = contract;
	return (
		<div className="grid gap-8 md:grid-cols-[1fr_360px] md:gap-14">
			<Read contract={contract} link={link} />
			<section
				aria-label="Your signature"
				className="self-start bg-plaster p-5"
			>
				<h2>{turn.yours ? "Your signature" : "Signatures"}</h2>
				<Order turn={turn} />
				{turn.yours && (
					<SignForm contract={contract} link={link} onDone={onDone} />
				)}
				<AskOfContract page={page} link={link} onDone={onDone} />
			</section>
		</div>
	);
}

function Read({ contract, link }: { contract: ContractPageDto; link: string }) {
	const { amends, file } = contract;
	return (
		<article className="min-w-0">
			<h2 className="mt-1 mb-2 text-[22px]">{contract.title}</h2>
			<p className="pb-3 text-soft">{contract.parties.join(" and ")}</p>
			{amends && (
				<section aria-label="What changes" className="mb-4 bg-plaster p-4">
					<h3>What changes</h3>
					<Differences of={amends.changes} />
					<p className="pt-2 font-semibold">
						{amends.before} becomes {contract.priced?.total}.
					</p>
				</section>
			)}
			{file && (
				<p className="pb-3">
					<Button asChild kind="brand" size="big">
						<a
							href={`/p/${link}/api/papers/${file.hash}`}
							target="_blank"
							rel="noreferrer"
						>
							Read the contract: {file.name}
						</a>
					</Button>
				</p>
			)}
			<div className="max-w-2xl">
				<Blocks of={contract.text} />
			</div>
			<Signatures of={contract.signatures} className="pt-4" />
			<p className="pt-4 text-[13px] break-all text-soft">
				SHA-256 of this version: {contract.hash}
			</p>
		</article>
	);
}

/** Several people sign one after the other. */
function Order({ turn }: { turn: SigningTurnDto }) {
	const next = turn.signers.find((one) => one.next);
	if (turn.signers.length < 2 && turn.yours) return null;
	return (
		<>
			<ol className="py-2">
				{turn.signers.map((one) => (
					<li
						key={one.name}
						className={`flex gap-3 py-0.5 ${one.next ? "font-semibold" : ""}`}
					>
						{one.name}
						<span className="ml-auto text-soft">
							{one.signed
								? "has signed"
								: one.next
									? "signs now"
									: "signs later"}
						</span>
					</li>
				))}
			</ol>
			{!turn.yours && next && (
				<p className="text-soft">
					It is with {next.name}. Whoever comes next gets a letter when it is
					their turn.
				</p>
			)}
		</>
	);
}

function SignForm({
	contract,
	link,
	onDone,
}: {
	contract: ContractPageDto;
	link: string;
	onDone: () => void;
}) {
	const [name, setName] = useState("");
	const [agreed, setAgreed] = useState(false);
	const [code, setCode] = useState("");
	const [refusal, setRefusal] = useState<Refusal>();
	const [busy, setBusy] = useState(false);

	async function sign(event: FormEvent) {
		event.preventDefault();
		setBusy(true);
		try {
			await answer(
				api.POST("/p/{link}/api/sign", {
					params: { path: { link } },
					body: { name, agreed, hash: contract.hash, code },
				}),
			);
			onDone();
		} catch (error) {
			setRefusal(error as Refusal);
			setBusy(false);
		}
	}

	return (
		<form noValidate onSubmit={sign} className="grid gap-3 pt-3">
			<Tick
				label={contract.consent}
				wrong={refusal?.of("agreed")}
				checked={agreed}
				onChange={(checked) => setAgreed(checked)}
			/>
			<TextField
				label="Your full name, as your signature"
				autoComplete="name"
				value={name}
				wrong={refusal?.of("name")}
				onChange={(e) => setName(e.target.value)}
			/>
			{contract.turn.asksCode && (
				<Code
					link={link}
					code={code}
					wrong={refusal?.of("code")}
					onChange={setCode}
				/>
			)}
			<Refused of={refusal} />
			<Button
				kind="brand"
				size="big"
				className="w-full"
				type="submit"
				disabled={busy}
			>
				{contract.amends ? "Sign the amendment" : "Sign the contract"}
			</Button>
		</form>
	);
}

/** The code that goes to the mail address of whoever signs. */
function Code({
	link,
	code,
	wrong,
	onChange,
}: {
	link: string;
	code: string;
	wrong?: string;
	onChange: (code: string) => void;
}) {
	const [sent, setSent] = useState(false);
	const [refusal, setRefusal] = useState<Refusal>();
	async function send() {
		setRefusal(undefined);
		try {
			await answer(
				api.POST("/p/{link}/api/code", { params: { path: { link } } }),
			);
			setSent(true);
		} catch (error) {
			setRefusal(error as Refusal);
		}
	}
	return (
		<div className="grid gap-2">
			{sent && (
				<p role="status">
					A code is on its way to your mail address. It is good for half an
					hour.
				</p>
			)}
			<Refused of={refusal} />
			<Button onClick={send}>
				{sent ? "Send another code" : "Send me a code"}
			</Button>
			<TextField
				label="Code from the letter"
				hint="six digits"
				inputMode="numeric"
				autoComplete="one-time-code"
				value={code}
				wrong={wrong}
				onChange={(e) => onChange(e.target.value)}
			/>
		</div>
	);
}
