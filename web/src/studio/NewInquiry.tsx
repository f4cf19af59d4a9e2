import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useEffect, useState } from "react";
import { useNavigate } from "react-router";
import type {
	CreatedDto,
	KindDto,
	PeopleDto,
	ReadInquiryDto,
} from "../api/schema";
import { Alert, Select, TextArea, TextField } from "../ui/Fields";
import { get, post, type Refusal, upload } from "../ui/http";
import { useKept } from "../ui/useKept";
import { Window } from "../ui/Window";
import { useAct } from "./useAct";

const empty = {
	kind: "",
	name: "",
	mail: "",
	phone: "",
	profile: "",
	organisation: "",
	source: "",
	words: "",
	date: "",
	person: "",
	followUp: false,
	letter: 0,
};

/** An inquiry that came by phone, chat, at a fair or by mail: a name and one way to reach them are enough. */
export default function NewInquiry({
	letter,
	onClose,
}: {
	letter: number;
	onClose: () => void;
}) {
	const [said, setSaid, forget] = useKept("inquiry", empty);
	const [reading, setReading] = useState<string>();
	const [problem, setProblem] = useState<string>();
	const kinds = useQuery({
		queryKey: ["kinds"],
		queryFn: () => get<KindDto[]>("/api/kinds"),
	});
	const act = useAct();
	const navigate = useNavigate();
	const set = (part: Partial<typeof empty>) => setSaid({ ...said, ...part });
	const take = (read: ReadInquiryDto) =>
		setSaid({
			...said,
			name: read.name ?? said.name,
			mail: read.mail ?? said.mail,
			phone: read.phone ?? said.phone,
			profile: read.profile ?? said.profile,
			words: read.words,
			letter: read.letter ?? 0,
		});
	async function read(from: () => Promise<ReadInquiryDto>) {
		setProblem(undefined);
		try {
			take(await from());
			setReading(undefined);
		} catch (error) {
			const refusal = error as Refusal;
			setProblem(refusal.of("file") ?? refusal.of("text") ?? refusal.message);
		}
	}
	useEffect(() => {
		if (letter) read(() => post<ReadInquiryDto>(`/api/letters/${letter}/read`));
	}, [letter]);
	const kind = said.kind || String(kinds.data?.[0]?.id ?? "");
	async function keep(event: FormEvent) {
		event.preventDefault();
		await act.run(async () => {
			const made = await post<CreatedDto>("/api/inquiries", {
				kind: Number(kind),
				name: said.name,
				mail: said.mail || null,
				phone: said.phone || null,
				profile: said.profile || null,
				organisation: said.organisation || null,
				title: null,
				source: said.source || null,
				words: said.words || null,
				date: said.date || null,
				person: said.person ? Number(said.person) : null,
				letter: said.letter || null,
				followUp: said.followUp,
			});
			forget();
			onClose();
			navigate(`/projects/${made.id}`);
		});
	}
	const wrong = (field: string) => act.refusal?.of(field);
	return (
		<Window title="A new inquiry" open onClose={onClose} wide>
			<form
				onSubmit={keep}
				className="grid gap-3"
				onDragOver={(e) => e.preventDefault()}
				onDrop={(e) => {
					e.preventDefault();
					const file = e.dataTransfer.files[0];
					if (file)
						read(() => upload<ReadInquiryDto>("/api/inquiries/letter", file));
				}}
			>
				<div className="flex flex-wrap gap-2">
					<button
						type="button"
						className="btn"
						onClick={() => setReading(reading === undefined ? "" : undefined)}
					>
						Paste a message
					</button>
					<label className="btn">
						Take a mail file
						<input
							type="file"
							accept=".eml,message/rfc822"
							aria-label="Take a mail file"
							className="sr-only"
							onChange={(e) => {
								const file = e.target.files?.[0];
								if (file)
									read(() =>
										upload<ReadInquiryDto>("/api/inquiries/letter", file),
									);
							}}
						/>
					</label>
					<span className="under self-center">or drop one here (.eml)</span>
				</div>
				{problem && <Alert>{problem}</Alert>}
				{reading !== undefined && (
					<div className="grid gap-2 bg-plaster p-3">
						<TextArea
							label="The message"
							rows={5}
							autoFocus
							value={reading}
							onChange={(e) => setReading(e.target.value)}
						/>
						<div>
							<button
								type="button"
								className="btn"
								disabled={!reading.trim()}
								onClick={() =>
									read(() =>
										post<ReadInquiryDto>("/api/inquiries/read", {
											text: reading,
										}),
									)
								}
							>
								Read it
							</button>
						</div>
					</div>
				)}
				<div className="grid gap-3 md:grid-cols-2">
					<TextField
						label="Name"
						autoFocus
						value={said.name}
						wrong={wrong("name")}
						onChange={(e) => set({ name: e.target.value, person: "" })}
					/>
					<Select
						label="Kind of work"
						value={kind}
						wrong={wrong("kind")}
						onChange={(e) => set({ kind: e.target.value })}
					>
						{kinds.data?.map((one) => (
							<option key={one.id} value={one.id}>
								{one.name}
							</option>
						))}
					</Select>
				</div>
				<Known said={said} onChoose={(person) => set({ person })} />
				{!said.person && (
					<div className="grid gap-3 md:grid-cols-3">
						<TextField
							label="Mail"
							value={said.mail}
							wrong={wrong("mail")}
							onChange={(e) => set({ mail: e.target.value })}
						/>
						<TextField
							label="Phone"
							value={said.phone}
							wrong={wrong("phone")}
							onChange={(e) => set({ phone: e.target.value })}
						/>
						<TextField
							label="Link to a profile"
							value={said.profile}
							wrong={wrong("profile")}
							onChange={(e) => set({ profile: e.target.value })}
						/>
					</div>
				)}
				<TextArea
					label="What they said"
					rows={3}
					value={said.words}
					wrong={wrong("words")}
					onChange={(e) => set({ words: e.target.value })}
				/>
				<div className="grid gap-3 md:grid-cols-3">
					<TextField
						label="Organisation"
						value={said.organisation}
						wrong={wrong("organisation")}
						onChange={(e) => set({ organisation: e.target.value })}
					/>
					<TextField
						label="How they came"
						value={said.source}
						wrong={wrong("source")}
						onChange={(e) => set({ source: e.target.value })}
					/>
					<TextField
						label="The date that matters"
						type="date"
						value={said.date}
						onChange={(e) => set({ date: e.target.value })}
					/>
				</div>
				<label className="flex gap-2.5">
					<input
						type="checkbox"
						className="mt-1 size-4 accent-(--ink)"
						checked={said.followUp}
						onChange={(e) => set({ followUp: e.target.checked })}
					/>
					<span>
						Begin the follow-ups of the kind, with its thank-you letter
					</span>
				</label>
				{act.refusal && Object.keys(act.refusal.errors).length === 0 && (
					<Alert>{act.refusal.message}</Alert>
				)}
				<div className="flex gap-2">
					<button type="submit" className="btn btn-go" disabled={act.busy}>
						Keep the inquiry
					</button>
					<button
						type="button"
						className="btn"
						onClick={() => {
							forget();
							setSaid(empty);
						}}
					>
						Begin anew
					</button>
				</div>
			</form>
		</Window>
	);
}

/** Somebody of that name is known: offered, never taken by itself. */
function Known({
	said,
	onChoose,
}: {
	said: typeof empty;
	onChoose: (person: string) => void;
}) {
	const words = said.name.trim();
	const known = useQuery({
		queryKey: ["people", "known", words],
		queryFn: () =>
			get<PeopleDto>(`/api/people?words=${encodeURIComponent(words)}`),
		enabled: words.length >= 3,
	});
	const rows = words.length >= 3 ? (known.data?.rows.slice(0, 4) ?? []) : [];
	if (rows.length === 0) return null;
	return (
		<fieldset className="border-l-4 border-hair pl-3">
			<legend className="label">Known already?</legend>
			{[...rows, undefined].map((one) => (
				<label key={one?.id ?? "new"} className="flex gap-2.5 py-0.5">
					<input
						type="radio"
						name="known"
						className="mt-1 size-4 accent-(--ink)"
						checked={said.person === String(one?.id ?? "")}
						onChange={() => onChoose(String(one?.id ?? ""))}
					/>
					{one ? (
						<span>
							{one.name}
							{one.organisation && `, ${one.organisation}`}
							<span className="under block">
								{one.reach}; {one.projects} project
								{one.projects === 1 ? "" : "s"}
								{one.lastContact && `, last contact ${one.lastContact}`}
							</span>
						</span>
					) : (
						<span>Somebody new</span>
					)}
				</label>
			))}
		</fieldset>
	);
}
