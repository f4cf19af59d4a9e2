import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import { answer, api } from "../../api/client";
import type { InvoiceReadDto } from "../../api/schema";
import { AmountField } from "../../ui/AmountField";
import { Button } from "../../ui/Button";
import { Fold } from "../../ui/Fold";
import { Refused } from "../../ui/Refused";
import { TextField } from "../../ui/TextField";
import { useAct } from "../useAct";

/** What can be done with an invoice: read as data, credited, asked interest for. */
export function InvoiceActs({
	project,
	invoice,
	onDone,
}: {
	project: number;
	invoice: InvoiceReadDto;
	onDone: () => void;
}) {
	return (
		<div className="grid gap-3 pt-3">
			{invoice.data ? (
				<p>
					<Button asChild kind="word">
						<a href={invoice.data}>As data (UBL, EN 16931)</a>
					</Button>
				</p>
			) : (
				<p className="under">No data beside it. {invoice.noData}</p>
			)}
			{invoice.late && (
				<Late project={project} invoice={invoice.id} late={invoice.late} />
			)}
			{invoice.creditable && (
				<Fold line="Write a credit note">
					<Credit
						invoice={invoice.id}
						most={invoice.creditable}
						onDone={onDone}
					/>
				</Fold>
			)}
		</div>
	);
}

function Late({
	project,
	invoice,
	late,
}: {
	project: number;
	invoice: number;
	late: NonNullable<InvoiceReadDto["late"]>;
}) {
	const act = useAct();
	const navigate = useNavigate();
	return (
		<section aria-label="Late interest" className="border-t border-hair pt-3">
			<div className="flex gap-3">
				<span>For the late payment you can ask</span>
				<b className="num ml-auto whitespace-nowrap">{late.total}</b>
			</div>
			<ul className="under pb-2">
				{late.working.map((line) => (
					<li key={line}>{line}</li>
				))}
			</ul>
			<Refused of={act.refusal} />
			{late.asked ? (
				<p className="under">It was asked for already.</p>
			) : (
				<Button
					disabled={act.busy}
					onClick={async () => {
						const begun = await act.run(() =>
							answer(
								api.POST("/api/invoices/{id}/interest", {
									params: { path: { id: invoice } },
								}),
							),
						);
						if (begun) navigate(`/projects/${project}/bill`);
					}}
				>
					Write an invoice for it
				</Button>
			)}
		</section>
	);
}

function Credit({
	invoice,
	most,
	onDone,
}: {
	invoice: number;
	most: string;
	onDone: () => void;
}) {
	const act = useAct();
	const [amount, setAmount] = useState(most);
	const [why, setWhy] = useState("");
	async function credit(event: FormEvent) {
		event.preventDefault();
		const done = await act.run(() =>
			answer(
				api.POST("/api/invoices/{id}/credit", {
					params: { path: { id: invoice } },
					body: { amount, why },
				}),
			),
		);
		if (done) onDone();
	}
	return (
		<form noValidate className="grid gap-3 pt-2" onSubmit={credit}>
			<div className="grid grid-cols-[1fr_2fr] gap-3">
				<AmountField
					label="Amount, with tax"
					value={amount}
					wrong={act.refusal?.of("amount")}
					onChange={setAmount}
				/>
				<TextField
					label="Why"
					hint="stands on it"
					value={why}
					wrong={act.refusal?.of("why")}
					onChange={(e) => setWhy(e.target.value)}
				/>
			</div>
			<Refused of={act.refusal} />
			<div>
				<Button type="submit" disabled={act.busy}>
					Issue the credit note
				</Button>
			</div>
		</form>
	);
}
