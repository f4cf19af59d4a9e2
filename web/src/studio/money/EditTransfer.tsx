import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { AccountDto, AccountTransferDto } from "../../api/schema";
import { AmountField } from "../../ui/AmountField";
import { Button } from "../../ui/Button";
import { DateField } from "../../ui/DateField";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";
import { useTakeOut } from "../useTakeOut";

/** Money moved between two accounts: neither income nor cost. */
export function EditTransfer({
	transfer,
	accounts,
	onClose,
}: {
	/** The one that is changed; none for a new one. */
	transfer?: AccountTransferDto;
	accounts: AccountDto[];
	onClose: () => void;
}) {
	const was = transfer?.said;
	const [said, setSaid] = useState({
		on: was?.on ?? "",
		from: was?.from ?? accounts[0]?.id ?? 0,
		to: was?.to ?? accounts[1]?.id ?? 0,
		left: was?.left ?? "",
		arrived: was?.arrived ?? "",
		words: was?.words ?? "",
	});
	const act = useAct();
	const takeOut = useTakeOut(act, onClose);
	const currencyOf = (id: number) =>
		accounts.find((one) => one.id === id)?.said.currency;
	const isChanged = currencyOf(said.from) !== currencyOf(said.to);
	const body = { ...said, on: said.on || null };
	async function keep(event: FormEvent) {
		event.preventDefault();
		const done = await act.run(() =>
			transfer
				? answer(
						api.PUT("/api/transfers/{id}", {
							params: { path: { id: transfer.id } },
							body,
						}),
					)
				: answer(api.POST("/api/transfers", { body })),
		);
		if (done) onClose();
	}
	const side = (field: "from" | "to", label: string) => (
		<Select
			label={label}
			value={said[field]}
			wrong={act.refusal?.of(field)}
			onChange={(e) => setSaid({ ...said, [field]: Number(e.target.value) })}
		>
			{accounts.map((one) => (
				<option key={one.id} value={one.id}>
					{one.said.name}, {one.said.currency}
				</option>
			))}
		</Select>
	);
	return (
		<Window title="A transfer" open onClose={onClose}>
			<form onSubmit={keep} className="grid gap-3">
				<div className="grid gap-3 sm:grid-cols-2">
					{side("from", "From")}
					{side("to", "To")}
				</div>
				<div className="grid gap-3 sm:grid-cols-2">
					<AmountField
						label={isChanged ? `Left, ${currencyOf(said.from)}` : "Amount"}
						value={said.left}
						wrong={act.refusal?.of("left")}
						onChange={(left) => setSaid({ ...said, left })}
					/>
					{isChanged && (
						<AmountField
							label={`Arrived, ${currencyOf(said.to)}`}
							value={said.arrived}
							wrong={act.refusal?.of("arrived")}
							onChange={(arrived) => setSaid({ ...said, arrived })}
						/>
					)}
				</div>
				<DateField
					label="Day"
					hint="left empty, today"
					back
					value={said.on}
					wrong={act.refusal?.of("on")}
					onChange={(on) => setSaid({ ...said, on })}
				/>
				<TextField
					label="What for"
					value={said.words}
					wrong={act.refusal?.of("words")}
					onChange={(e) => setSaid({ ...said, words: e.target.value })}
				/>
				<Refused of={act.refusal} />
				<div className="flex gap-2">
					<Button kind="go" type="submit" disabled={act.busy}>
						{transfer ? "Keep the change" : "Keep the transfer"}
					</Button>
					{transfer && (
						<Button
							className="ml-auto"
							disabled={act.busy}
							onClick={() =>
								takeOut(transfer.words, (removed) =>
									answer(
										api.POST("/api/transfers/{id}/removed", {
											params: { path: { id: transfer.id } },
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
