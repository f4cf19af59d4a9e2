import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { KeepIncomeDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { DateField } from "../../ui/DateField";
import { Refused } from "../../ui/Refused";
import { Shown } from "../../ui/Shown";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";
import { useTakeOut } from "../useTakeOut";
import { CostFields, type Said } from "./CostFields";
import { useUsual } from "./useUsual";

/** Writes down money from somebody who is no client; or opens it again. */
export function WriteIncome({
	id,
	onClose,
}: {
	id?: number;
	onClose: () => void;
}) {
	const income = useQuery({
		queryKey: ["over", "income", id],
		queryFn: () =>
			answer(
				api.GET("/api/incomes/{id}", { params: { path: { id: id ?? 0 } } }),
			),
		enabled: id !== undefined,
	});
	return (
		<Window title="Other income" open onClose={onClose}>
			{id === undefined ? (
				<Form onClose={onClose} />
			) : (
				<Shown query={income}>
					{(opened) => <Form id={id} income={opened} onClose={onClose} />}
				</Shown>
			)}
		</Window>
	);
}

function Form({
	id,
	income,
	onClose,
}: {
	id?: number;
	income?: KeepIncomeDto;
	onClose: () => void;
}) {
	const usual = useUsual();
	const [said, setSaid] = useState<Said>({
		what: income?.what ?? "",
		who: income?.payer ?? "",
		category: income?.category ?? "",
		amount: income?.amount ?? "",
		tax: income?.tax ?? "0",
		account: income?.account ?? null,
	});
	const [on, setOn] = useState(income?.on ?? "");
	const act = useAct();
	const takeOut = useTakeOut(act, onClose);
	async function keep(event: FormEvent) {
		event.preventDefault();
		const { who, ...rest } = said;
		const body = { ...rest, payer: who, on: on || null };
		const done = await act.run(() =>
			id
				? answer(
						api.PUT("/api/incomes/{id}", { params: { path: { id } }, body }),
					)
				: answer(api.POST("/api/incomes", { body })),
		);
		if (done) onClose();
	}
	return (
		<form onSubmit={keep} className="grid gap-3">
			<p className="text-soft">
				What did not come from a client: a grant, interest, something sold.
			</p>
			<CostFields
				said={said}
				who={{ label: "Paid by", field: "payer" }}
				usual={usual}
				refusal={act.refusal}
				onChange={setSaid}
			/>
			<DateField
				label="Day"
				back
				hint="left empty, today"
				value={on}
				wrong={act.refusal?.of("on")}
				onChange={setOn}
			/>
			<Refused of={act.refusal} />
			<div className="flex gap-2">
				<Button kind="go" type="submit" disabled={act.busy}>
					{id ? "Keep the change" : "Keep the income"}
				</Button>
				{id && (
					<Button
						className="ml-auto"
						disabled={act.busy}
						onClick={() =>
							takeOut(said.what, (removed) =>
								answer(
									api.POST("/api/incomes/{id}/removed", {
										params: { path: { id } },
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
	);
}
