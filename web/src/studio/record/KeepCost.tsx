import { type FormEvent, useState } from "react";
import { answer, api, upload } from "../../api/client";
import type { CostDto, SpentDto } from "../../api/schema";
import { AmountField } from "../../ui/AmountField";
import { Button } from "../../ui/Button";
import { DateField } from "../../ui/DateField";
import { FilePick } from "../../ui/FilePick";
import { Refused } from "../../ui/Refused";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";
import { useTakeOut } from "../useTakeOut";

/** Keeps a cost of a project with its receipt; or changes one that is not charged on yet. */
export function KeepCost({
	project,
	spent,
	cost,
	onClose,
}: {
	project: number;
	spent: SpentDto;
	/** The one that is changed; none for a new one. */
	cost?: CostDto;
	onClose: () => void;
}) {
	const [said, setSaid] = useState({
		what: cost?.what ?? "",
		payee: cost?.payee ?? "",
		category: cost?.category ?? "",
		amount: cost?.amount ?? "",
		tax: cost?.tax ?? spent.usual.tax,
		on: cost?.on ?? "",
		chargeOn: cost?.chargeOn ?? false,
	});
	const [receipt, setReceipt] = useState<File>();
	// once it is kept a receipt that was refused is tried again without keeping it twice
	const [kept, setKept] = useState(cost?.id);
	const act = useAct();
	const of = (id: number) => ({ params: { path: { id: project, cost: id } } });
	const body = { ...said, on: said.on || null };
	async function keep(event: FormEvent) {
		event.preventDefault();
		const done = await act.run(async () => {
			let id = kept;
			if (id)
				await answer(
					api.PUT("/api/projects/{id}/costs/{cost}", { ...of(id), body }),
				);
			else
				id = (
					await answer(
						api.POST("/api/projects/{id}/costs", {
							params: { path: { id: project } },
							body,
						}),
					)
				).id;
			setKept(id);
			if (receipt)
				await upload(
					`/api/projects/${project}/costs/${id}/receipt?${new URLSearchParams({ name: receipt.name })}`,
					receipt,
				);
		});
		if (done) onClose();
	}
	const takeOut = useTakeOut(act, onClose);
	const text = (field: "what" | "payee" | "category" | "tax") => ({
		value: said[field],
		wrong: act.refusal?.of(field),
		onChange: (e: { target: { value: string } }) =>
			setSaid({ ...said, [field]: e.target.value }),
	});
	if (cost?.charged)
		return (
			<Window title="A cost" open onClose={onClose}>
				<p>
					{cost.what}, {cost.said}: charged {cost.charged}. What is charged
					stays as it is.
				</p>
			</Window>
		);
	return (
		<Window title="A cost of this project" open onClose={onClose}>
			<form onSubmit={keep} className="grid gap-3">
				<TextField
					label="What for"
					hint="stands on the invoice if it is charged on"
					{...text("what")}
				/>
				<div className="grid grid-cols-[1fr_110px] gap-3">
					<AmountField
						label="Amount, with its tax"
						value={said.amount}
						wrong={act.refusal?.of("amount")}
						onChange={(amount) => setSaid({ ...said, amount })}
					/>
					<TextField label="Tax in it, %" {...text("tax")} />
				</div>
				<div className="grid gap-3 sm:grid-cols-2">
					<TextField label="Paid to" {...text("payee")} />
					<TextField label="Category" list="categories" {...text("category")} />
				</div>
				<datalist id="categories">
					{spent.usual.categories.map((one) => (
						<option key={one} value={one} />
					))}
				</datalist>
				<DateField
					label="Day"
					back
					hint="left empty, today"
					value={said.on}
					wrong={act.refusal?.of("on")}
					onChange={(on) => setSaid({ ...said, on })}
				/>
				<Tick
					label="The client pays it besides"
					under="offered when an invoice is written, without the tax that you paid and with your own"
					checked={said.chargeOn}
					onChange={(chargeOn) => setSaid({ ...said, chargeOn })}
				/>
				<div className="flex flex-wrap items-center gap-3">
					<FilePick
						accept="image/*,application/pdf"
						onFiles={([file]) => setReceipt(file)}
					>
						{receipt || cost?.receipt ? "Another receipt" : "Add its receipt"}
					</FilePick>
					<span className="min-w-0 text-soft break-words">
						{receipt?.name ?? cost?.receipt}
					</span>
				</div>
				<Refused of={act.refusal} />
				<div className="flex gap-2">
					<Button kind="go" type="submit" disabled={act.busy}>
						{cost ? "Keep the change" : "Keep the cost"}
					</Button>
					{cost && (
						<Button
							className="ml-auto"
							disabled={act.busy}
							onClick={() =>
								takeOut(said.what, (removed) =>
									answer(
										api.POST("/api/projects/{id}/costs/{cost}/removed", {
											...of(cost.id),
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
