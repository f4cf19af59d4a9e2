import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../../api/client";
import type { BankLineDto } from "../../api/schema";
import { Alert } from "../../ui/Alert";
import { Button } from "../../ui/Button";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { Window } from "../../ui/Window";

/** Any of the open invoices, one or several, for one line of the bank. */
export function ChooseInvoices({
	line,
	onBook,
	onClose,
}: {
	line: BankLineDto;
	onBook: (invoices: number[], words: string) => Promise<boolean>;
	onClose: () => void;
}) {
	const [words, setWords] = useState("");
	const [ticked, setTicked] = useState<{ id: number; words: string }[]>([]);
	const found = useQuery({
		queryKey: ["over", "open invoices", words],
		queryFn: () =>
			answer(
				api.GET("/api/invoices", {
					params: { query: { show: "Open", by: "Number", words, most: 20 } },
				}),
			),
		placeholderData: (before) => before,
	});
	const ids = ticked.map((one) => one.id);
	const shares = useQuery({
		queryKey: ["over", "shares", line.id, ...ids],
		queryFn: () =>
			answer(
				api.GET("/api/bank/lines/{id}/shares", {
					params: { path: { id: line.id }, query: { invoices: ids } },
				}),
			),
		enabled: ids.length > 0,
		retry: false,
	});
	const listed = (found.data?.groups ?? [])
		.flatMap((group) => group.rows)
		.filter((row) => !ids.includes(row.id))
		.map((row) => ({
			id: row.id,
			words: `${row.number}, ${row.of.client}, ${row.owed} open`,
		}));
	return (
		<Window title={`What does ${line.amount} pay?`} open wide onClose={onClose}>
			<form
				className="grid gap-3"
				onSubmit={async (event) => {
					event.preventDefault();
					if (await onBook(ids, `${line.amount} booked`)) onClose();
				}}
			>
				<TextField
					label="Number, client or project"
					value={words}
					onChange={(e) => setWords(e.target.value)}
				/>
				<fieldset aria-label="Open invoices" className="grid gap-1.5">
					{[...ticked, ...listed].map((one) => (
						<Tick
							key={one.id}
							label={one.words}
							checked={ids.includes(one.id)}
							onChange={(on) =>
								setTicked(
									on
										? [...ticked, one]
										: ticked.filter((other) => other.id !== one.id),
								)
							}
						/>
					))}
					{found.data && ticked.length + listed.length === 0 && (
						<p className="text-soft">No open invoice is called so.</p>
					)}
					{(found.data?.more ?? 0) > 0 && (
						<p className="under">
							and {found.data?.more} more: write a few letters
						</p>
					)}
				</fieldset>
				{ids.length > 0 && shares.error && (
					<Alert>{shares.error.message}</Alert>
				)}
				{ids.length > 0 && shares.data && (
					<div aria-live="polite">
						{shares.data.parts.map((part) => (
							<p key={part} className="num">
								{part}
							</p>
						))}
						{shares.data.left && <p className="under">{shares.data.left}</p>}
					</div>
				)}
				<Button
					kind="go"
					type="submit"
					className="justify-self-start"
					disabled={!shares.isSuccess || ids.length === 0}
				>
					Book it
				</Button>
			</form>
		</Window>
	);
}
