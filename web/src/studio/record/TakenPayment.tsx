import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { PaymentMeans, PaymentReadDto } from "../../api/schema";
import { AmountField } from "../../ui/AmountField";
import { Button } from "../../ui/Button";
import { DateField } from "../../ui/DateField";
import { Fold } from "../../ui/Fold";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { Tick } from "../../ui/Tick";
import { useAct } from "../useAct";
import { means } from "./HappenedPaid";

type Props = { project: number; payment: PaymentReadDto; onDone: () => void };

/** What can be said of a payment: that it goes back, that the bank took it, or that it never was. */
export function Taken(props: Props) {
	const { payment } = props;
	return (
		<div className="grid gap-3 pt-3">
			{payment.left && (
				<Fold line="Give it back, or a part of it">
					<GiveBack {...props} left={payment.left} />
				</Fold>
			)}
			{payment.chargesBack && (
				<Fold line="The bank took it back">
					<ChargedBack {...props} />
				</Fold>
			)}
			{payment.canVoid && (
				<Fold line="It was recorded by mistake">
					<Mistaken {...props} />
				</Fold>
			)}
		</div>
	);
}

function GiveBack({
	project,
	payment,
	left,
	onDone,
}: Props & { left: string }) {
	const act = useAct();
	const [amount, setAmount] = useState(payment.ahead ?? left);
	const [credit, setCredit] = useState(payment.onInvoice && !payment.ahead);
	const [by, setBy] = useState<NonNullable<PaymentMeans> | "">(
		payment.through ? "" : "Transfer",
	);
	const [on, setOn] = useState("");
	async function give(event: FormEvent) {
		event.preventDefault();
		const done = await act.run(() =>
			answer(
				api.POST("/api/projects/{id}/payments/{payment}/refund", {
					params: { path: { id: project, payment: payment.id } },
					body: { amount, credit, means: by || null, on: (by && on) || null },
				}),
			),
		);
		if (done) onDone();
	}
	return (
		<form noValidate className="grid gap-3 pt-2" onSubmit={give}>
			{payment.ahead && (
				<p className="under">
					Of it {payment.ahead} is paid ahead: no invoice asks for it.
				</p>
			)}
			<div className="grid grid-cols-2 gap-3">
				<AmountField
					label="Amount"
					value={amount}
					wrong={act.refusal?.of("amount")}
					onChange={setAmount}
				/>
				<Select
					label="How"
					value={by}
					wrong={act.refusal?.of("means")}
					onChange={(e) =>
						setBy(e.target.value as NonNullable<PaymentMeans> | "")
					}
				>
					{payment.through && <option value="">as it came</option>}
					{means.map((one) => (
						<option key={one.means} value={one.means}>
							{one.words}
						</option>
					))}
				</Select>
			</div>
			{by && (
				<DateField
					label="On"
					hint="today, if nothing is said"
					back
					value={on}
					wrong={act.refusal?.of("on")}
					onChange={setOn}
				/>
			)}
			{payment.onInvoice && (
				<Tick
					label="With a credit note, so that nothing is owed for it"
					checked={credit}
					onChange={setCredit}
				/>
			)}
			<Refused of={act.refusal} />
			<div>
				<Button type="submit" disabled={act.busy}>
					Give it back
				</Button>
			</div>
		</form>
	);
}

function ChargedBack({ project, payment, onDone }: Props) {
	const act = useAct();
	const [on, setOn] = useState("");
	async function say(event: FormEvent) {
		event.preventDefault();
		const done = await act.run(() =>
			answer(
				api.POST("/api/projects/{id}/payments/{payment}/charged-back", {
					params: { path: { id: project, payment: payment.id } },
					body: { on: on || null },
				}),
			),
		);
		if (done) onDone();
	}
	return (
		<form noValidate className="grid gap-3 pt-2" onSubmit={say}>
			<p className="under">
				A cheque that bounced, a debit that was returned, a card payment the
				bank took back. What it paid is owed again, and a booking it made is
				none any more.
			</p>
			<DateField
				label="On"
				hint="today, if nothing is said"
				back
				value={on}
				wrong={act.refusal?.of("on")}
				onChange={setOn}
			/>
			<Refused of={act.refusal} />
			<div>
				<Button type="submit" disabled={act.busy}>
					It was charged back
				</Button>
			</div>
		</form>
	);
}

function Mistaken({ project, payment, onDone }: Props) {
	const act = useAct();
	return (
		<div className="grid gap-2 pt-2">
			<p className="under">
				Taken back, it counts nowhere any more; reminders that are still ahead
				go on, those missed meanwhile do not go out.
			</p>
			<Refused of={act.refusal} />
			<div>
				<Button
					disabled={act.busy}
					onClick={async () => {
						if (
							await act.run(() =>
								answer(
									api.POST("/api/projects/{id}/payments/{payment}/void", {
										params: { path: { id: project, payment: payment.id } },
									}),
								),
							)
						)
							onDone();
					}}
				>
					Take this payment back
				</Button>
			</div>
		</div>
	);
}
