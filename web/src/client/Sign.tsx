import { type FormEvent, useState } from "react";
import { answer, api } from "../api/client";
import type { Refusal } from "../api/refusal";
import type { ClientPageDto } from "../api/schema";
import { Blocks } from "../ui/Blocks";
import { Button } from "../ui/Button";
import { Refused } from "../ui/Refused";
import { TextField } from "../ui/TextField";
import { Tick } from "../ui/Tick";
import { Signatures } from "./Signatures";

/** Reading the contract, filled with exactly the choice, and signing it by typing one's name. */
export function Sign({
	page,
	link,
	onDone,
}: {
	page: ClientPageDto;
	link: string;
	onDone: () => void;
}) {
	const contract = page.booking.contract!;
	const [name, setName] = useState("");
	const [agreed, setAgreed] = useState(false);
	const [refusal, setRefusal] = useState<Refusal>();
	const [busy, setBusy] = useState(false);

	async function sign(event: FormEvent) {
		event.preventDefault();
		setBusy(true);
		try {
			await answer(
				api.POST("/p/{link}/api/sign", {
					params: { path: { link } },
					body: { name, agreed, hash: contract.hash },
				}),
			);
			onDone();
		} catch (error) {
			setRefusal(error as Refusal);
			setBusy(false);
		}
	}

	return (
		<div className="grid gap-8 md:grid-cols-[1fr_360px] md:gap-14">
			<article>
				<h2 className="mt-1 mb-2 text-[22px]">{contract.title}</h2>
				<p className="pb-3 text-soft">{contract.parties.join(" and ")}</p>
				<div className="max-w-2xl">
					<Blocks of={contract.text} />
				</div>
				<Signatures of={contract.signatures} className="pt-4" />
				<p className="pt-4 text-[13px] break-all text-soft">
					SHA-256 of this version: {contract.hash}
				</p>
			</article>
			<section
				aria-label="Your signature"
				className="self-start bg-plaster p-5"
			>
				<h2>Your signature</h2>
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
					<Refused of={refusal} />
					<Button
						kind="brand"
						size="big"
						className="w-full"
						type="submit"
						disabled={busy}
					>
						Sign the contract
					</Button>
				</form>
			</section>
		</div>
	);
}
