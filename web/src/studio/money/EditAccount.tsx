import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { AccountDto, PaymentMeans } from "../../api/schema";
import { Button } from "../../ui/Button";
import { DateField } from "../../ui/DateField";
import { Refused } from "../../ui/Refused";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";
import { useTakeOut } from "../useTakeOut";
import { useCurrency } from "./useCurrency";

type Means = NonNullable<PaymentMeans>;

const means: [Means, string][] = [
	["Transfer", "transfers"],
	["Card", "cards"],
	["Account", "payments from their account"],
	["Cheque", "cheques"],
	["Cash", "cash"],
];

/** An account: made, changed, or taken out while nothing lies on it. */
export function EditAccount({
	account,
	onClose,
}: {
	/** The one that is changed; none for a new one. */
	account?: AccountDto;
	onClose: () => void;
}) {
	const own = useCurrency();
	const [said, setSaid] = useState({
		name: account?.said.name ?? "",
		currency: account?.said.currency ?? own,
		iban: account?.said.iban ?? "",
		opening: account?.said.opening ?? "",
		openedOn: account?.said.openedOn ?? "",
	});
	const [takes, setTakes] = useState<Means[]>(
		(account?.said.takes ?? []).filter((one) => one !== null),
	);
	const act = useAct();
	const takeOut = useTakeOut(act, onClose);
	async function keep(event: FormEvent) {
		event.preventDefault();
		const body = { ...said, openedOn: said.openedOn || null, takes };
		const done = await act.run(() =>
			account
				? answer(
						api.PUT("/api/accounts/{id}", {
							params: { path: { id: account.id } },
							body,
						}),
					)
				: answer(api.POST("/api/accounts", { body })),
		);
		if (done) onClose();
	}
	const text = (field: "name" | "currency" | "iban" | "opening") => ({
		value: said[field],
		wrong: act.refusal?.of(field),
		onChange: (e: { target: { value: string } }) =>
			setSaid({ ...said, [field]: e.target.value }),
	});
	return (
		<Window
			title={account ? "An account" : "Add an account"}
			open
			onClose={onClose}
		>
			<form onSubmit={keep} className="grid gap-3">
				<div className="grid grid-cols-[1fr_110px] gap-3">
					<TextField
						label="Name"
						placeholder="Current account"
						{...text("name")}
					/>
					<TextField label="Currency" {...text("currency")} />
				</div>
				<div className="grid gap-3 sm:grid-cols-2">
					<DateField
						label="Its books begin"
						hint="left empty, today"
						back
						value={said.openedOn}
						wrong={act.refusal?.of("openedOn")}
						onChange={(openedOn) => setSaid({ ...said, openedOn })}
					/>
					<TextField
						label="Balance that morning"
						hint="below nothing with a minus"
						inputMode="decimal"
						{...text("opening")}
					/>
				</div>
				<TextField
					label="IBAN"
					hint="a statement of it books here"
					{...text("iban")}
				/>
				<fieldset className="grid gap-1.5">
					<legend className="pb-1 text-small font-[650]">
						What arrives here
					</legend>
					{means.map(([one, words]) => (
						<Tick
							key={one}
							label={words}
							checked={takes.includes(one)}
							onChange={(now) =>
								setTakes(
									now
										? [...takes, one]
										: takes.filter((other) => other !== one),
								)
							}
						/>
					))}
				</fieldset>
				<Refused of={act.refusal} />
				<div className="flex gap-2">
					<Button kind="go" type="submit" disabled={act.busy}>
						{account ? "Keep the change" : "Add it"}
					</Button>
					{account && (
						<Button
							className="ml-auto"
							disabled={act.busy}
							onClick={() =>
								takeOut(said.name, (removed) =>
									answer(
										api.POST("/api/accounts/{id}/removed", {
											params: { path: { id: account.id } },
											body: { removed },
										}),
									),
								)
							}
						>
							Take it out
						</Button>
					)}
				</div>
			</form>
		</Window>
	);
}
