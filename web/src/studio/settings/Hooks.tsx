import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import type {
	ApiKeyDto,
	HookDto,
	HookEvent,
	HookTestDto,
	MadeApiKeyDto,
} from "../../api/schema";
import { Alert, TextField } from "../../ui/Fields";
import { get, post, put, remove } from "../../ui/http";
import { Shown } from "../../ui/Shown";
import { Section } from "../templates/Section";
import { useAct } from "../useAct";

const events: Record<HookEvent, string> = {
	InquiryCame: "an inquiry came",
	ProposalSent: "a proposal was sent",
	ProposalAccepted: "a proposal was accepted",
	ContractSigned: "a contract was signed",
	PaymentReceived: "a payment came",
	HandedOver: "it was handed over",
	Approved: "it was approved",
	Ended: "it ended",
	Step: "a routine's step says so",
};

/** Addresses of other programs that are told what happens. */
export function Hooks() {
	const [open, setOpen] = useState<number>();
	const hooks = useQuery({
		queryKey: ["hooks"],
		queryFn: () => get<HookDto[]>("/api/hooks"),
	});
	return (
		<Section
			title="Web hooks"
			under="other programs are told what happens, signed"
		>
			<Shown query={hooks}>
				{(data) => (
					<>
						{data.map((hook) => (
							<div key={hook.id} className="border-b border-hair py-1.5">
								<button
									type="button"
									className="font-[600]"
									aria-expanded={open === hook.id}
									onClick={() =>
										setOpen(open === hook.id ? undefined : hook.id)
									}
								>
									{hook.name}
								</button>{" "}
								<span className="under">
									{hook.off ? "off" : hook.address}, {hook.taken} taken
									{hook.waiting > 0 && `, ${hook.waiting} to be tried`}
									{hook.givenUp > 0 && `, ${hook.givenUp} given up`}
								</span>
								{hook.failing && (
									<span className="block text-small font-[650]">
										{hook.failing}
									</span>
								)}
								{open === hook.id && (
									<Hook
										key={hook.edition}
										hook={hook}
										onDone={() => setOpen(undefined)}
									/>
								)}
							</div>
						))}
						{data.length === 0 && (
							<p className="py-1 text-soft">
								No program is told anything yet. Calls, what they were answered
								and what is tried again would stand here.
							</p>
						)}
					</>
				)}
			</Shown>
			{open === 0 ? (
				<Hook onDone={() => setOpen(undefined)} />
			) : (
				<button type="button" className="btn mt-3" onClick={() => setOpen(0)}>
					Add a web hook
				</button>
			)}
		</Section>
	);
}

function Hook({ hook, onDone }: { hook?: HookDto; onDone: () => void }) {
	const [said, setSaid] = useState({
		name: hook?.name ?? "",
		address: hook?.address ?? "",
		events: hook?.events ?? (["InquiryCame"] as readonly HookEvent[]),
		inside: hook?.inside ?? false,
		off: hook?.off ?? false,
		edition: hook?.edition ?? 0,
	});
	const [tested, setTested] = useState<HookTestDto>();
	const act = useAct();
	async function keep(event: FormEvent) {
		event.preventDefault();
		const kept = await act.run(() =>
			hook ? put(`/api/hooks/${hook.id}`, said) : post("/api/hooks", said),
		);
		if (kept) onDone();
	}
	return (
		<form onSubmit={keep} className="grid gap-3 py-3">
			<div className="grid gap-3 md:grid-cols-[200px_1fr]">
				<TextField
					label="Name"
					value={said.name}
					wrong={act.refusal?.of("name")}
					onChange={(e) => setSaid({ ...said, name: e.target.value })}
				/>
				<TextField
					label="Address"
					placeholder="https://"
					value={said.address}
					wrong={act.refusal?.of("address")}
					onChange={(e) => setSaid({ ...said, address: e.target.value })}
				/>
			</div>
			<fieldset className="grid gap-x-4 md:grid-cols-3">
				<legend className="label">It is told when</legend>
				{(Object.keys(events) as HookEvent[])
					.filter((one) => one !== "Step")
					.map((one) => (
						<Tick
							key={one}
							label={events[one]}
							on={said.events.includes(one)}
							onChange={(on) =>
								setSaid({
									...said,
									events: on
										? [...said.events, one]
										: said.events.filter((other) => other !== one),
								})
							}
						/>
					))}
			</fieldset>
			<Tick
				label="It lies in the studio's own network"
				on={said.inside}
				onChange={(inside) => setSaid({ ...said, inside })}
			/>
			<Tick
				label="Off"
				on={said.off}
				onChange={(off) => setSaid({ ...said, off })}
			/>
			{hook && (
				<p className="under break-all">
					Secret, by which it knows the calls are yours:{" "}
					<code>{hook.secret}</code>
				</p>
			)}
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
			{tested && (
				<p role="status" className={tested.taken ? "" : "font-[650]"}>
					{tested.words}
				</p>
			)}
			<div className="flex gap-2">
				<button type="submit" className="btn btn-go" disabled={act.busy}>
					Keep the web hook
				</button>
				{hook && (
					<>
						<button
							type="button"
							className="btn"
							disabled={act.busy}
							onClick={() =>
								act.run(async () =>
									setTested(
										await post<HookTestDto>(`/api/hooks/${hook.id}/test`),
									),
								)
							}
						>
							Try it
						</button>
						<button
							type="button"
							className="btn"
							disabled={act.busy}
							onClick={() => act.run(() => remove(`/api/hooks/${hook.id}`))}
						>
							Take it away
						</button>
					</>
				)}
			</div>
		</form>
	);
}

/** Keys for programs that read the studio, or bring inquiries. */
export function ApiKeys() {
	const [made, setMade] = useState<MadeApiKeyDto>();
	const [said, setSaid] = useState({
		name: "",
		mayRead: true,
		mayInquire: false,
	});
	const act = useAct();
	const keys = useQuery({
		queryKey: ["keys"],
		queryFn: () => get<ApiKeyDto[]>("/api/keys"),
	});
	return (
		<Section title="Keys for programs" under="to read, or to bring inquiries">
			<Shown query={keys}>
				{(data) => (
					<>
						{data.map((key) => (
							<p
								key={key.id}
								className="flex flex-wrap gap-x-3 border-b border-hair py-1.5"
							>
								<b className="font-[600]">{key.name}</b>
								<code className="text-soft">{key.begins}…</code>
								<span className="text-soft">
									{[
										key.mayRead && "reads",
										key.mayInquire && "brings inquiries",
									]
										.filter(Boolean)
										.join(", ")}
									, {key.used ? `last used ${key.used}` : "never used"}
								</span>
								<button
									type="button"
									className="link ml-auto text-small"
									disabled={act.busy}
									onClick={() => act.run(() => remove(`/api/keys/${key.id}`))}
								>
									end it<span className="sr-only">: {key.name}</span>
								</button>
							</p>
						))}
						{data.length === 0 && (
							<p className="py-1 text-soft">
								No program has a key. What a key can do is described at{" "}
								<a className="link" href="/openapi/v1.json">
									/openapi/v1.json
								</a>{" "}
								under “open”.
							</p>
						)}
					</>
				)}
			</Shown>
			{made && (
				<p role="status" className="border-l-4 border-ink py-2 pl-3">
					Copy it now, it is shown only once: <br />
					<code className="break-all">{made.key}</code>
				</p>
			)}
			<form
				className="grid gap-2 pt-3"
				onSubmit={(event) => {
					event.preventDefault();
					act.run(async () => {
						setMade(await post<MadeApiKeyDto>("/api/keys", said));
						setSaid({ ...said, name: "" });
					});
				}}
			>
				<div className="max-w-sm">
					<TextField
						label="A new key"
						placeholder="What it is for"
						value={said.name}
						wrong={act.refusal?.of("name")}
						onChange={(e) => setSaid({ ...said, name: e.target.value })}
					/>
				</div>
				<Tick
					label="May read projects and people"
					on={said.mayRead}
					onChange={(mayRead) => setSaid({ ...said, mayRead })}
				/>
				<Tick
					label="May bring new inquiries"
					on={said.mayInquire}
					onChange={(mayInquire) => setSaid({ ...said, mayInquire })}
				/>
				{act.refusal && (
					<Alert>{act.refusal.of("mayRead") ?? act.refusal.message}</Alert>
				)}
				<div>
					<button
						type="submit"
						className="btn"
						disabled={act.busy || !said.name.trim()}
					>
						Make the key
					</button>
				</div>
			</form>
		</Section>
	);
}

function Tick({
	label,
	on,
	onChange,
}: {
	label: string;
	on: boolean;
	onChange: (on: boolean) => void;
}) {
	return (
		<label className="flex gap-2.5">
			<input
				type="checkbox"
				className="mt-1 size-4 shrink-0 accent-(--ink)"
				checked={on}
				onChange={(e) => onChange(e.target.checked)}
			/>
			{label}
		</label>
	);
}
