import { type FormEvent, useState } from "react";
import { answer, api, upload } from "../../api/client";
import type { QuoteDto, SpentDto } from "../../api/schema";
import { AmountField } from "../../ui/AmountField";
import { Button } from "../../ui/Button";
import { DateField } from "../../ui/DateField";
import { FilePick } from "../../ui/FilePick";
import { Refused } from "../../ui/Refused";
import { TextField } from "../../ui/TextField";
import { useUndo } from "../../ui/Undo";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";
import { useTakeOut } from "../useTakeOut";

/** What suppliers would ask; taken, one becomes a cost. */
export function Quotes({
	project,
	spent,
}: {
	project: number;
	spent: SpentDto;
}) {
	const [quote, setQuote] = useState<QuoteDto>();
	const act = useAct("below");
	const offer = useUndo();
	const take = (one: QuoteDto) =>
		act.run(async () => {
			const { id } = await answer(
				api.POST("/api/projects/{id}/quotes/{quote}/take", {
					params: { path: { id: project, quote: one.id } },
				}),
			);
			offer({
				words: `A cost now: ${one.kept.what}`,
				undo: () =>
					act.run(() =>
						answer(
							api.POST("/api/projects/{id}/costs/{cost}/removed", {
								params: { path: { id: project, cost: id } },
								body: { removed: true },
							}),
						),
					),
			});
		});
	if (spent.quotes.length === 0) return null;
	return (
		<section aria-label="Quotes of suppliers" className="pt-2">
			<h3 className="label">Quotes of suppliers</h3>
			{spent.quotes.map((one) => (
				<div key={one.id} className="flex gap-2.5 py-[3px] text-[14.3px]">
					<span className="min-w-0 flex-1">
						<Button
							kind="line"
							className="text-left break-words hover:underline"
							disabled={one.taken}
							onClick={() => setQuote(one)}
						>
							{one.kept.what}, {one.kept.supplier}
						</Button>
						<span className="under flex flex-wrap gap-x-3">
							{one.stands && <span>{one.stands}</span>}
							{one.file && (
								<Button asChild kind="word">
									<a href={`/api/projects/${project}/quotes/${one.id}/file`}>
										{one.file}
									</a>
								</Button>
							)}
							{!one.taken && (
								<Button
									kind="word"
									disabled={act.busy}
									onClick={() => take(one)}
								>
									take it
									<span className="sr-only">: {one.kept.what}</span>
								</Button>
							)}
						</span>
					</span>
					<span className="num whitespace-nowrap">{one.said}</span>
				</div>
			))}
			{quote && (
				<KeepQuote
					key={quote.id}
					project={project}
					tax={spent.usual.tax}
					quote={quote}
					onClose={() => setQuote(undefined)}
				/>
			)}
		</section>
	);
}

/** Keeps what a supplier would ask, with its file. */
export function KeepQuote({
	project,
	tax,
	quote,
	onClose,
}: {
	project: number;
	tax: string;
	quote?: QuoteDto;
	onClose: () => void;
}) {
	const [said, setSaid] = useState(
		quote?.kept ?? {
			supplier: "",
			what: "",
			amount: "",
			tax,
			validUntil: null,
		},
	);
	const [file, setFile] = useState<File>();
	// once it is kept, a file that was refused is tried again without keeping it twice
	const [kept, setKept] = useState(quote?.id);
	const act = useAct();
	const takeOut = useTakeOut(act, onClose);
	const of = (id: number) => ({ params: { path: { id: project, quote: id } } });
	async function keep(event: FormEvent) {
		event.preventDefault();
		const done = await act.run(async () => {
			let id = kept;
			if (id)
				await answer(
					api.PUT("/api/projects/{id}/quotes/{quote}", {
						...of(id),
						body: said,
					}),
				);
			else
				id = (
					await answer(
						api.POST("/api/projects/{id}/quotes", {
							params: { path: { id: project } },
							body: said,
						}),
					)
				).id;
			setKept(id);
			if (file)
				await upload(
					`/api/projects/${project}/quotes/${id}/file?${new URLSearchParams({ name: file.name })}`,
					file,
				);
		});
		if (done) onClose();
	}
	const text = (field: "supplier" | "what" | "tax") => ({
		value: said[field],
		wrong: act.refusal?.of(field),
		onChange: (e: { target: { value: string } }) =>
			setSaid({ ...said, [field]: e.target.value }),
	});
	return (
		<Window title="A quote of a supplier" open onClose={onClose}>
			<form onSubmit={keep} className="grid gap-3">
				<TextField label="What for" {...text("what")} />
				<TextField label="Who quotes" {...text("supplier")} />
				<div className="grid grid-cols-[1fr_110px] gap-3">
					<AmountField
						label="Amount, with its tax"
						value={said.amount}
						wrong={act.refusal?.of("amount")}
						onChange={(amount) => setSaid({ ...said, amount })}
					/>
					<TextField label="Tax in it, %" {...text("tax")} />
				</div>
				<DateField
					label="Valid until"
					value={said.validUntil ?? ""}
					wrong={act.refusal?.of("validUntil")}
					onChange={(day) => setSaid({ ...said, validUntil: day || null })}
				/>
				<div className="flex flex-wrap items-center gap-3">
					<FilePick
						accept="image/*,application/pdf"
						onFiles={([one]) => setFile(one)}
					>
						{file || quote?.file ? "Another file" : "Add its file"}
					</FilePick>
					<span className="min-w-0 break-words text-soft">
						{file?.name ?? quote?.file}
					</span>
				</div>
				<Refused of={act.refusal} />
				<div className="flex gap-2">
					<Button kind="go" type="submit" disabled={act.busy}>
						{quote ? "Keep the change" : "Keep the quote"}
					</Button>
					{quote && (
						<Button
							className="ml-auto"
							disabled={act.busy}
							onClick={() =>
								takeOut(said.what, (removed) =>
									answer(
										api.POST("/api/projects/{id}/quotes/{quote}/removed", {
											...of(quote.id),
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
