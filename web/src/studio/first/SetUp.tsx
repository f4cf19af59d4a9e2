import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useEffect, useState } from "react";
import { useNavigate } from "react-router";
import { answer, api } from "../../api/client";
import type { EmptyDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { TextField } from "../../ui/TextField";
import { useAct } from "../useAct";
import { BringBack } from "./BringBack";
import { signedIn } from "./signedIn";

const asked = [
	{ key: "studio", label: "Name of the studio", type: "text" },
	{ key: "name", label: "Your name, as it stands under letters", type: "text" },
	{ key: "mail", label: "Your mail address", type: "email" },
] as const;

/** The first page of a house without a studio: who owns it. */
export default function SetUp({ empty }: { empty: EmptyDto }) {
	const [said, setSaid] = useState({
		studio: "",
		name: "",
		mail: "",
		password: "",
		code: "",
	});
	// what was refused is said until another is typed
	const [tried, setTried] = useState("");
	const queries = useQueryClient();
	const navigate = useNavigate();
	const act = useAct();
	const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
	const strength = useQuery({
		queryKey: ["password", said],
		queryFn: () =>
			answer(
				api.POST("/api/set-up/password", {
					body: { ...said, zone },
				}),
			),
		enabled: said.password !== "",
		gcTime: 0,
		staleTime: Number.POSITIVE_INFINITY,
		placeholderData: (before) => before,
	});
	useEffect(() => {
		document.title = "Set up Gesamt";
	}, []);
	async function begin(event: FormEvent) {
		event.preventDefault();
		setTried(said.password);
		const done = await act.run(async () => {
			await answer(api.POST("/api/set-up", { body: { ...said, zone } }));
			await signedIn(queries, said.password);
		});
		if (done) navigate("/begin");
	}
	const wrong = (field: string) => act.refusal?.of(field);
	const weak = said.password === tried ? wrong("password") : undefined;
	return (
		<main className="mx-auto grid max-w-[560px] gap-5 p-5 pt-10">
			<div>
				<h1>Whose studio is it?</h1>
				<p className="pt-1 text-soft">
					Gesamt takes each inquiry through lead, proposal, contract, payment
					and delivery. Everything stays on this machine.
				</p>
			</div>
			<form onSubmit={begin} className="panel grid gap-3 p-5" noValidate>
				{asked.map(({ key, label, type }, i) => (
					<TextField
						key={key}
						label={label}
						type={type}
						autoFocus={i === 0}
						autoComplete={
							{ studio: "organization", name: "name", mail: "email" }[key]
						}
						value={said[key]}
						wrong={wrong(key)}
						onChange={(e) => setSaid({ ...said, [key]: e.target.value })}
					/>
				))}
				<TextField
					label="Choose your password"
					type="password"
					autoComplete="new-password"
					value={said.password}
					wrong={weak}
					onChange={(e) => setSaid({ ...said, password: e.target.value })}
				/>
				{!weak && (
					<p role="status" className="under -mt-2">
						{said.password && strength.data
							? strength.data.words
							: "At least 10 characters. A few words are easier to keep than signs."}
					</p>
				)}
				{empty.needsCode && (
					<TextField
						label="The code the program said where it was started"
						autoComplete="off"
						value={said.code}
						wrong={wrong("code")}
						onChange={(e) => setSaid({ ...said, code: e.target.value })}
					/>
				)}
				<Refused of={act.refusal} />
				<div>
					<Button kind="go" type="submit" disabled={act.busy}>
						{act.busy ? "One moment" : "Set up the studio"}
					</Button>
				</div>
			</form>
			<BringBack code={said.code} />
		</main>
	);
}
