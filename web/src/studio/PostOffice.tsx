import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Fragment, type ReactNode, useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import { answer, api } from "../api/client";
import { Button } from "../ui/Button";
import { Refused } from "../ui/Refused";
import { Shown } from "../ui/Shown";
import { TextArea } from "../ui/TextArea";
import { TextField } from "../ui/TextField";
import { BankCounter } from "./BankCounter";
import { PaymentHouse } from "./PaymentHouse";
import { useAct } from "./useAct";

/** The stand-in post office: letters as their recipients find them, with an answer under each. */
export default function PostOffice({ clock }: { clock: boolean }) {
	const letter = useParams().letter;
	const [address, setAddress] = useState("");
	const list = useQuery({
		queryKey: ["over", "post-office", address],
		queryFn: () =>
			answer(api.GET("/api/post-office", { params: { query: { address } } })),
	});
	useEffect(() => {
		document.title = "Post office, Gesamt";
	}, []);
	return (
		<main className="px-5 pb-8">
			<div className="flex flex-wrap items-end gap-x-5 gap-y-2 pt-4 pb-3">
				<h1>Post office</h1>
				<p className="text-soft">
					A stand-in: nothing here leaves this machine. You read and answer as
					the recipient.
				</p>
				{clock && <Clock />}
			</div>
			<div className="grid gap-6 lg:grid-cols-[440px_1fr]">
				<section aria-label="Letters">
					<TextField
						label="Only letters from or to"
						placeholder="a name or an address"
						value={address}
						onChange={(e) => setAddress(e.target.value)}
					/>
					<Shown query={list}>
						{(letters) => (
							<ul className="pt-2">
								{letters.map((one) => (
									<li key={one.id}>
										<Link
											to={`/post-office/${one.id}`}
											data-walk
											aria-current={
												String(one.id) === letter ? "true" : undefined
											}
											className={`block border-b border-hair px-2 py-2 outline-offset-0 ${String(one.id) === letter ? "bg-sheet" : ""}`}
										>
											<b className="font-[650]">{one.subject}</b>
											<span className="under block truncate">
												{one.fromStudio ? `to ${one.to}` : `from ${one.from}`}
											</span>
										</Link>
									</li>
								))}
								{letters.length === 0 && (
									<li className="py-3 text-soft">
										No letter yet. What the studio sends arrives here.
									</li>
								)}
							</ul>
						)}
					</Shown>
				</section>
				{letter ? (
					<Letter key={letter} id={Number(letter)} />
				) : (
					clock && (
						<div className="grid content-start gap-5">
							<PaymentHouse />
							<BankCounter />
						</div>
					)
				)}
			</div>
		</main>
	);
}

function Letter({ id }: { id: number }) {
	const letter = useQuery({
		queryKey: ["over", "posted", id],
		queryFn: () =>
			answer(api.GET("/api/post-office/{id}", { params: { path: { id } } })),
	});
	const [text, setText] = useState("");
	const [said, setSaid] = useState(false);
	const act = useAct();
	return (
		<Shown query={letter}>
			{(data) => (
				<article aria-label={data.subject} className="panel self-start p-5">
					<h2>{data.subject}</h2>
					<p className="under pb-4">
						{data.from} to {data.to}
					</p>
					<div className="max-w-2xl whitespace-pre-line">
						<Linked text={data.text} />
					</div>
					{data.fromStudio && (
						<form
							className="mt-5 grid gap-2 border-t border-hair pt-4"
							onSubmit={async (event) => {
								event.preventDefault();
								if (
									await act.run(() =>
										answer(
											api.POST("/api/post-office/{id}/answer", {
												params: { path: { id } },
												body: { text },
											}),
										),
									)
								) {
									setText("");
									setSaid(true);
								}
							}}
						>
							<TextArea
								label={`Answer as ${data.to.split("<")[0]?.replaceAll('"', "").trim()}`}
								rows={4}
								value={text}
								wrong={act.refusal?.of("text")}
								onChange={(e) => setText(e.target.value)}
							/>
							<Refused of={act.refusal} />
							<div className="flex items-center gap-3">
								<Button kind="go" type="submit" disabled={act.busy}>
									Send the answer
								</Button>
								{said && (
									<span role="status">The answer is with the studio.</span>
								)}
							</div>
						</form>
					)}
				</article>
			)}
		</Shown>
	);
}

/** Addresses in the text as links that open beside this page. */
function Linked({ text }: { text: string }): ReactNode {
	return text.split(/(https?:\/\/\S+)/).map((part, i) =>
		part.startsWith("http") ? (
			<Button asChild kind="word" className="break-all">
				<a key={i} href={part} target="_blank" rel="noreferrer">
					{part}
				</a>
			</Button>
		) : (
			<Fragment key={i}>{part}</Fragment>
		),
	);
}

/** Moves a demo's clock on, so that what takes days can be seen. */
function Clock() {
	const queries = useQueryClient();
	const clock = useQuery({
		queryKey: ["clock"],
		queryFn: () => answer(api.GET("/api/clock")),
		refetchInterval: 30_000,
	});
	const act = useAct("below");
	const advance = (hours: number) =>
		act.run(async () => {
			await answer(
				api.POST("/api/clock", {
					body: {
						now: null,
						advanceHours: hours,
						stands: clock.data?.stands ?? false,
					},
				}),
			);
			await queries.invalidateQueries({ queryKey: ["clock"] });
		});
	return (
		<fieldset className="ml-auto flex items-center gap-2">
			<legend className="sr-only">The demo's clock</legend>
			<span className="num">
				{clock.data?.date}, {clock.data?.time}
			</span>
			{(
				[
					["an hour on", 1],
					["a day on", 24],
					["a week on", 168],
				] as const
			).map(([words, hours]) => (
				<Button key={hours} disabled={act.busy} onClick={() => advance(hours)}>
					{words}
				</Button>
			))}
		</fieldset>
	);
}
