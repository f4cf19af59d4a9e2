import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../../api/client";
import type {
	MailAccountDto,
	MailSecurity,
	MailServerDto,
	MailTestDto,
} from "../../api/schema";
import { Alert } from "../../ui/Alert";
import { Button } from "../../ui/Button";
import { CountField } from "../../ui/CountField";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { Shown } from "../../ui/Shown";
import { TextField } from "../../ui/TextField";
import { Section } from "../templates/Section";
import { useAct } from "../useAct";

/** The mail servers letters go out through and come in by. */
export function Mail() {
	const account = useQuery({
		queryKey: ["mail-account"],
		queryFn: () => answer(api.GET("/api/mail-account")),
	});
	return (
		<Section
			id="mail"
			title="Mail"
			under={
				account.data?.smtp.host
					? `letters go out through ${account.data.smtp.host}`
					: "letters lie in the stand-in post office"
			}
		>
			<Shown query={account}>
				{(data) =>
					data.mayLeave ? (
						<Account key={data.edition} account={data} />
					) : (
						<p className="text-soft">
							This is the demo: its people are made up, and its letters stay in
							its post office. In a studio of your own the mail servers are set
							here.
						</p>
					)
				}
			</Shown>
		</Section>
	);
}

const securities: Record<MailSecurity, string> = {
	Tls: "TLS from the beginning",
	StartTls: "STARTTLS",
	None: "none (a server on this machine)",
};

function Account({ account }: { account: MailAccountDto }) {
	const [said, setSaid] = useState(account);
	const [tests, setTests] = useState<MailTestDto[]>();
	const act = useAct();
	const wrong = (field: string) => act.refusal?.of(field);
	return (
		<div className="grid gap-5">
			{account.problem && (
				<Alert>The inbox could not be read: {account.problem}</Alert>
			)}
			<Server
				title="Letters out (SMTP)"
				name="smtp"
				server={said.smtp}
				wrong={wrong}
				onChange={(smtp) => setSaid({ ...said, smtp })}
			/>
			<Server
				title="Letters in (IMAP)"
				name="imap"
				server={said.imap}
				wrong={wrong}
				onChange={(imap) => setSaid({ ...said, imap })}
			/>
			<p className="under">
				The inbox is only read: nothing in it is moved or marked. What lies in
				it today stays where it is.
			</p>
			<Refused of={act.refusal} />
			{tests && (
				<div role="status">
					<ul className="grid gap-1">
						{tests.map((test) => (
							<li key={test.part} className={test.works ? "" : "font-[650]"}>
								{test.works ? "Works" : "Does not work"}, {test.part}:{" "}
								{test.words}
							</li>
						))}
						{tests.length === 0 && <li>There is no server to try yet.</li>}
					</ul>
				</div>
			)}
			<div className="flex gap-2">
				<Button
					kind="go"
					disabled={act.busy || said === account}
					onClick={() =>
						act.run(() => answer(api.PUT("/api/mail-account", { body: said })))
					}
				>
					Keep the servers
				</Button>
				<Button
					disabled={act.busy}
					onClick={() =>
						act.run(async () => {
							setTests(undefined);
							setTests(
								await answer(
									api.POST("/api/mail-account/test", { body: said }),
								),
							);
						})
					}
				>
					{act.busy ? "One moment" : "Try them"}
				</Button>
			</div>
		</div>
	);
}

function Server({
	title,
	name,
	server,
	wrong,
	onChange,
}: {
	title: string;
	name: string;
	server: MailServerDto;
	wrong: (field: string) => string | undefined;
	onChange: (server: MailServerDto) => void;
}) {
	const set = (part: Partial<MailServerDto>) =>
		onChange({ ...server, ...part });
	return (
		<fieldset className="grid gap-3 md:grid-cols-[1fr_100px_220px]">
			<legend className="label">{title}</legend>
			<TextField
				label="Server"
				placeholder="mail.place.example"
				value={server.host}
				wrong={wrong(`${name}.host`)}
				onChange={(e) => set({ host: e.target.value })}
			/>
			<CountField
				label="Port"
				value={server.port}
				wrong={wrong(`${name}.port`)}
				onChange={(count) => set({ port: count ?? 0 })}
			/>
			<Select
				label="Kept from others by"
				value={server.security}
				wrong={wrong(`${name}.security`)}
				onChange={(e) => set({ security: e.target.value as MailSecurity })}
			>
				{Object.entries(securities).map(([value, words]) => (
					<option key={value} value={value}>
						{words}
					</option>
				))}
			</Select>
			<TextField
				label="User"
				autoComplete="off"
				value={server.user}
				wrong={wrong(`${name}.user`)}
				onChange={(e) => set({ user: e.target.value })}
			/>
			<div className="md:col-span-2">
				<TextField
					label="Password"
					type="password"
					autoComplete="new-password"
					hint={
						server.hasPassword ? "set; empty keeps the one that is set" : ""
					}
					value={server.password ?? ""}
					onChange={(e) => set({ password: e.target.value || null })}
				/>
			</div>
		</fieldset>
	);
}
