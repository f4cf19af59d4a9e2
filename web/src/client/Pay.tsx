import { useState } from "react";
import { answer, api } from "../api/client";
import type { Refusal } from "../api/refusal";
import type { ClientPageDto, InvoicePageDto } from "../api/schema";
import { Alert } from "../ui/Alert";
import { Button } from "../ui/Button";
import { Refused } from "../ui/Refused";
import { Tick } from "../ui/Tick";
import { AskOfInvoice } from "./Ask";
import { usePay } from "./usePay";

type Props = { page: ClientPageDto; link: string; onDone: () => void };

/** What is open, the earliest due first, and the ways to pay it. */
export default function Pay({ page, link, onDone }: Props) {
	const open = page.booking.invoices.filter((one) => one.pay);
	if (open.length === 0) return null;
	return (
		<div id="pay" className="mb-8 grid max-w-xl gap-4">
			{open.map((invoice) => (
				<OpenInvoice
					key={invoice.publicId}
					page={page}
					link={link}
					onDone={onDone}
					invoice={invoice}
				/>
			))}
		</div>
	);
}

/** One invoice: what is open of it, and how it is paid. */
function OpenInvoice({
	page,
	link,
	onDone,
	invoice,
}: Props & { invoice: InvoicePageDto }) {
	const { pay, error, busy } = usePay(link);
	const { card, account, at, consent } = page.booking.ways;
	const [keeps, setKeeps] = useState(false);
	const { transfer, onItsWay } = invoice.pay!;
	return (
		<section
			aria-label={`Invoice ${invoice.number}, to pay`}
			className="bg-plaster p-5"
		>
			<div className="flex items-baseline gap-3 pb-1">
				<span>
					Invoice {invoice.number}, due {invoice.due}
					{invoice.owed !== invoice.total && (
						<span className="block text-[14.5px] text-soft">
							open of {invoice.total}
						</span>
					)}
				</span>
				<span className="num ml-auto text-[21px] font-[680] whitespace-nowrap">
					{invoice.owed}
				</span>
			</div>
			{onItsWay && (
				<p role="status" className="pt-1 pb-2">
					{onItsWay}
				</p>
			)}
			{error && <Alert>{error.message}</Alert>}
			{card && consent && (
				<Tick
					className="pt-2 text-[14.5px]"
					label={consent}
					checked={keeps}
					onChange={setKeeps}
				/>
			)}
			{card && (
				<Button
					kind="brand"
					size="big"
					className="mt-3 w-full"
					disabled={busy}
					onClick={() => pay("Card", invoice.publicId, keeps)}
				>
					Pay by card
				</Button>
			)}
			{account && (
				<Button
					size="big"
					className="mt-2 w-full"
					disabled={busy}
					onClick={() => pay("Account", invoice.publicId)}
				>
					Pay from your account
				</Button>
			)}
			{transfer && <Transfer of={transfer} amount={invoice.owed} />}
			{at && <At words={at} />}
			<SaidPaid link={link} invoice={invoice} onDone={onDone} />
			<AskOfInvoice
				link={link}
				owner={page.studio.owner}
				invoice={invoice}
				onDone={onDone}
			/>
		</section>
	);
}

/** What a transfer needs, with the code for the bank's app. */
function Transfer({
	of,
	amount,
}: {
	of: NonNullable<NonNullable<InvoicePageDto["pay"]>["transfer"]>;
	amount: string;
}) {
	return (
		<div className="mt-4 flex flex-wrap items-start gap-4 border-t border-hair pt-4">
			{of.code && (
				<svg
					role="img"
					aria-label="QR code that fills in the transfer in your bank’s app"
					viewBox={`0 0 ${of.codeSize} ${of.codeSize}`}
					className="size-[132px] shrink-0 bg-white"
					shapeRendering="crispEdges"
				>
					<path d={of.code} fill="#000" />
				</svg>
			)}
			<dl className="grid grid-cols-[auto_1fr] gap-x-3 gap-y-0.5 text-[14.5px]">
				<dt className="col-span-2 font-[650]">By transfer</dt>
				<dt className="text-soft">IBAN</dt>
				<dd className="num break-words">{of.iban}</dd>
				{of.bic && (
					<>
						<dt className="text-soft">BIC</dt>
						<dd className="num">{of.bic}</dd>
					</>
				)}
				<dt className="text-soft">Amount</dt>
				<dd className="num">{amount}</dd>
				<dt className="text-soft">Reference</dt>
				<dd className="num">{of.reference}</dd>
			</dl>
		</div>
	);
}

/** The studio's own way: a link where it is one. */
function At({ words }: { words: string }) {
	return (
		<p className="pt-3 text-[14.5px]">
			Or:{" "}
			{/^https?:\/\//.test(words) ? (
				<a href={words} rel="noreferrer" className="underline">
					{words}
				</a>
			) : (
				words
			)}
		</p>
	);
}

/** A mark for the studio: the money itself is seen a day or two later. */
function SaidPaid({
	link,
	invoice,
	onDone,
}: {
	link: string;
	invoice: InvoicePageDto;
	onDone: () => void;
}) {
	const [refusal, setRefusal] = useState<Refusal>();
	if (invoice.pay?.saidPaid)
		return (
			<p role="status" className="pt-3 text-[14.5px] text-soft">
				You said that you have paid. It takes a day or two until the money is
				seen.
			</p>
		);
	async function say() {
		setRefusal(undefined);
		try {
			await answer(
				api.POST("/p/{link}/api/invoices/{invoice}/paid", {
					params: { path: { link, invoice: invoice.publicId } },
				}),
			);
			onDone();
		} catch (refused) {
			setRefusal(refused as Refusal);
		}
	}
	return (
		<div className="pt-3">
			<Refused of={refusal} />
			<Button onClick={say}>I have paid by transfer</Button>
		</div>
	);
}
