import { type FormEvent, useState } from "react";
import type {
	Gate,
	HappenedSort,
	PaymentMeans,
	RecordDto,
} from "../../api/schema";
import { Alert, Select, TextField } from "../../ui/Fields";
import { post } from "../../ui/http";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";
import { EndLetter } from "./EndLetter";
import { SignedPaper } from "./SignedPaper";

const words: Record<HappenedSort, string> = {
	Fit: "It is a fit",
	Countersign: "I sign the contract",
	Call: "We spoke",
	NoAnswerNeeded: "It needs no answer",
	PriceAgreed: "We agreed a price outside",
	SignedOnPaper: "They signed on paper",
	Paid: "They paid",
	HandedOver: "I handed the work over",
	Approved: "They approved the work",
	Waived: "This gate is waived",
	Rest: "It rests",
	GoOn: "It goes on",
	NotAFit: "It is not a fit",
	Referred: "I referred it to a colleague",
	Lost: "They decided otherwise",
	GoneQuiet: "They went quiet",
	Cancelled: "It was cancelled",
	NotAnInquiry: "It is not an inquiry",
	TakenUp: "It is taken up again",
	Read: "I have read the answers: begin the follow-ups",
	BookedStraightAway: "They are booked straight away",
	NotWonAfterAll: "It is not won after all",
};

const ends: HappenedSort[] = [
	"NotAFit",
	"Referred",
	"Lost",
	"GoneQuiet",
	"Cancelled",
	"NotAnInquiry",
];

const means: { means: NonNullable<PaymentMeans>; words: string }[] = [
	{ means: "Transfer", words: "by transfer" },
	{ means: "Cheque", words: "by cheque" },
	{ means: "Cash", words: "in cash" },
];

/** What the form holds; each sort of event shows and sends what it needs. */
export type Said = {
	on: string;
	words: string;
	until: string;
	amount: string;
	tax: string;
	onBooking: string;
	means: NonNullable<PaymentMeans>;
	invoice: string;
	file: string;
	credit: boolean;
	colleague: string;
	letter: boolean;
	subject: string;
	body: string;
};

const nothing: Said = {
	on: "",
	words: "",
	until: "",
	amount: "",
	tax: "23",
	onBooking: "40",
	means: "Transfer",
	invoice: "",
	file: "",
	credit: true,
	colleague: "",
	letter: false,
	subject: "",
	body: "",
};

/** How the owner records what came outside Gesamt, and decides. */
export function WhatHappened({
	record,
	open,
	onClose,
}: {
	record: RecordDto;
	open: boolean;
	onClose: () => void;
}) {
	const [sort, setSort] = useState<HappenedSort>();
	const [said, setSaid] = useState(nothing);
	const act = useAct();
	function choose(one: HappenedSort) {
		const first = record.toPay.invoices[0];
		setSort(one);
		setSaid({
			...nothing,
			invoice: first ? String(first.id) : "",
			amount: one === "Paid" ? (first?.owed ?? record.toPay.ahead ?? "") : "",
			file: String(record.files.at(-1)?.id ?? ""),
		});
	}
	async function say(event: FormEvent) {
		event.preventDefault();
		const done = await act.run(() =>
			post(`/api/projects/${record.id}/happened`, {
				sort,
				on: said.on || null,
				words: said.words || null,
				until: said.until || null,
				amount: said.amount || null,
				tax: said.tax,
				onBooking: said.onBooking,
				means: sort === "Paid" ? said.means : null,
				invoice: said.invoice ? Number(said.invoice) : null,
				file: said.file ? Number(said.file) : null,
				credit:
					ends.includes(sort!) &&
					said.credit &&
					record.toPay.invoices.length > 0,
				colleague: said.colleague ? Number(said.colleague) : null,
				subject: said.letter ? said.subject : null,
				body: said.letter ? said.body : null,
			}),
		);
		if (!done) return;
		setSort(undefined);
		onClose();
	}
	return (
		<Window title="What happened?" open={open} onClose={onClose}>
			<form onSubmit={say} className="grid gap-3">
				<fieldset className={sort ? "max-h-44 overflow-auto" : ""}>
					<legend className="sr-only">What happened</legend>
					{record.canHappen.map((one) => (
						<label
							key={one}
							className="flex items-center gap-2.5 border-b border-hair py-1.5"
						>
							<input
								type="radio"
								name="sort"
								className="size-4 accent-(--ink)"
								checked={sort === one}
								onChange={() => choose(one)}
							/>
							{one === "Waived"
								? `The gate ${record.stage as Gate} is waived`
								: words[one]}
						</label>
					))}
				</fieldset>
				{sort && (
					<Details
						sort={sort}
						record={record}
						said={said}
						wrong={(field) => act.refusal?.of(field)}
						onChange={(part) => setSaid({ ...said, ...part })}
					/>
				)}
				{act.refusal && <Alert>{act.refusal.message}</Alert>}
				<button
					type="submit"
					className="btn btn-go"
					disabled={!sort || act.busy}
				>
					{sort ? `Record: ${words[sort]}` : "Choose what happened"}
				</button>
			</form>
		</Window>
	);
}

type Fields = {
	sort: HappenedSort;
	record: RecordDto;
	said: Said;
	wrong: (field: string) => string | undefined;
	onChange: (part: Partial<Said>) => void;
};

/** What goes with an event: who said what, how much, when. */
function Details({ sort, record, said, wrong, onChange }: Fields) {
	const text = textLabel(sort);
	return (
		<>
			{text && (
				<TextField
					label={text}
					value={said.words}
					wrong={wrong("words") ?? wrong("name")}
					onChange={(e) => onChange({ words: e.target.value })}
				/>
			)}
			{(sort === "PriceAgreed" || sort === "BookedStraightAway") && (
				<Price
					said={said}
					wrong={wrong}
					onChange={onChange}
					onBooking={sort === "PriceAgreed"}
				/>
			)}
			{(sort === "Referred" || sort === "NotAFit") && (
				<EndLetter
					sort={sort}
					record={record}
					said={said}
					wrong={wrong}
					onChange={onChange}
				/>
			)}
			{sort === "Paid" && (
				<Paid record={record} said={said} wrong={wrong} onChange={onChange} />
			)}
			{sort === "SignedOnPaper" && (
				<SignedPaper
					record={record}
					said={said}
					wrong={wrong}
					onChange={onChange}
				/>
			)}
			{sort === "Rest" && (
				<TextField
					label="Until"
					type="date"
					hint="left empty, you are asked again in 14 days"
					value={said.until}
					wrong={wrong("until")}
					onChange={(e) => onChange({ until: e.target.value })}
				/>
			)}
			{ends.includes(sort) && record.toPay.invoices.length > 0 && (
				<label className="flex gap-2.5">
					<input
						type="checkbox"
						className="mt-1 size-4 accent-(--ink)"
						checked={said.credit}
						onChange={(e) => onChange({ credit: e.target.checked })}
					/>
					<span>
						Credit what is unpaid:{" "}
						{record.toPay.invoices.map((one) => one.words).join("; ")}
					</span>
				</label>
			)}
			{sort !== "Rest" && sort !== "Countersign" && (
				<TextField
					label="On"
					type="date"
					hint="today, unless it was earlier"
					value={said.on}
					wrong={wrong("on")}
					onChange={(e) => onChange({ on: e.target.value })}
				/>
			)}
		</>
	);
}

type Part = Pick<Fields, "said" | "wrong" | "onChange">;

function Price({
	said,
	wrong,
	onChange,
	onBooking,
}: Part & { onBooking: boolean }) {
	return (
		<div className="grid grid-cols-3 gap-3">
			<TextField
				label="Price, before tax"
				inputMode="decimal"
				value={said.amount}
				wrong={wrong("amount")}
				onChange={(e) => onChange({ amount: e.target.value })}
			/>
			<TextField
				label="Tax %"
				inputMode="decimal"
				value={said.tax}
				wrong={wrong("tax")}
				onChange={(e) => onChange({ tax: e.target.value })}
			/>
			{onBooking && (
				<TextField
					label="On booking %"
					inputMode="decimal"
					value={said.onBooking}
					wrong={wrong("onBooking")}
					onChange={(e) => onChange({ onBooking: e.target.value })}
				/>
			)}
		</div>
	);
}

function Paid({ record, said, wrong, onChange }: Part & { record: RecordDto }) {
	return (
		<>
			{record.toPay.invoices.length > 0 ? (
				<Select
					label="Invoice"
					value={said.invoice}
					wrong={wrong("invoice")}
					onChange={(e) =>
						onChange({
							invoice: e.target.value,
							amount:
								record.toPay.invoices.find(
									(one) => String(one.id) === e.target.value,
								)?.owed ?? "",
						})
					}
				>
					{record.toPay.invoices.map((one) => (
						<option key={one.id} value={one.id}>
							{one.words}
						</option>
					))}
				</Select>
			) : (
				<p className="under">
					No invoice is open: this is kept as paid ahead of the next.
				</p>
			)}
			<div className="grid grid-cols-2 gap-3">
				<TextField
					label="Amount"
					inputMode="decimal"
					hint="less, if it came in parts"
					value={said.amount}
					wrong={wrong("amount")}
					onChange={(e) => onChange({ amount: e.target.value })}
				/>
				<Select
					label="How"
					value={said.means}
					wrong={wrong("means")}
					onChange={(e) => onChange({ means: e.target.value as Said["means"] })}
				>
					{means.map((one) => (
						<option key={one.means} value={one.means}>
							{one.words}
						</option>
					))}
				</Select>
			</div>
		</>
	);
}

function textLabel(sort: HappenedSort): string | undefined {
	switch (sort) {
		case "Call":
			return "What was said";
		case "Countersign":
			return "Your full name, as your signature";
		case "Rest":
		case "Waived":
			return "The reason";
		case "Referred":
			return "To whom, or why";
		case "BookedStraightAway":
			return "Why without a contract";
		case "NotAFit":
		case "Lost":
		case "GoneQuiet":
		case "Cancelled":
		case "NotAnInquiry":
			return "The reason, if you know it";
		default:
			return undefined;
	}
}
