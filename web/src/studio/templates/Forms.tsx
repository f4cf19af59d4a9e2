import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type {
	FormDto,
	FormField,
	FormPurpose,
	KindPageDto,
} from "../../api/schema";
import { type Answers, Field, shownFields } from "../../client/FormFields";
import { Alert, Select, TextArea, TextField } from "../../ui/Fields";
import { get, post, put, remove } from "../../ui/http";
import { Shown } from "../../ui/Shown";
import { useAct } from "../useAct";
import { Questions } from "./Questions";
import { Section } from "./Section";

const purposes: Record<FormPurpose, string> = {
	Inquiry: "inquiries",
	Questionnaire: "questions to a client",
	Feedback: "feedback",
};

/** The forms of a kind: public ones for inquiries, and those put to clients. */
export function Forms({ kind }: { kind: KindPageDto }) {
	const [open, setOpen] = useState<number>();
	const [title, setTitle] = useState("");
	const [purpose, setPurpose] = useState<FormPurpose>("Inquiry");
	const act = useAct();
	const forms = useQuery({
		queryKey: ["forms", kind.id],
		queryFn: () => get<FormDto[]>(`/api/kinds/${kind.id}/forms`),
	});
	return (
		<Section
			title="Forms"
			under={forms.data ? forms.data.map((form) => form.title).join(", ") : ""}
		>
			<Shown query={forms}>
				{(data) => (
					<ul>
						{data.map((form) => (
							<li key={form.id} className="border-b border-hair py-1.5">
								<button
									type="button"
									className="font-[600]"
									aria-expanded={open === form.id}
									onClick={() =>
										setOpen(open === form.id ? undefined : form.id)
									}
								>
									{form.title}
								</button>{" "}
								<span className="under">
									{form.purpose !== "Inquiry" ? (
										`${purposes[form.purpose]}, ${form.usedBy.length > 0 ? `put by ${form.usedBy.join(", ")}` : "by hand"}`
									) : form.closed ? (
										"closed"
									) : (
										<a className="link" href={`/i/${form.slug}`}>
											{form.address}
										</a>
									)}
								</span>
								{open === form.id && (
									<Form key={form.edition} form={form} kind={kind} />
								)}
							</li>
						))}
					</ul>
				)}
			</Shown>
			<div className="flex items-end gap-2 pt-3">
				<TextField
					label="A new form"
					placeholder="Title, as visitors read it"
					value={title}
					wrong={act.refusal?.of("title")}
					onChange={(e) => setTitle(e.target.value)}
				/>
				<Select
					label="For"
					value={purpose}
					onChange={(e) => setPurpose(e.target.value as FormPurpose)}
				>
					{Object.entries(purposes).map(([value, words]) => (
						<option key={value} value={value}>
							{words}
						</option>
					))}
				</Select>
				<button
					type="button"
					className="btn"
					disabled={act.busy || !title.trim()}
					onClick={async () => {
						const made = await act.run(async () => {
							const { id } = await post<{ id: number }>(
								`/api/kinds/${kind.id}/forms`,
								{ title, purpose },
							);
							setOpen(id);
						});
						if (made) setTitle("");
					}}
				>
					Begin the form
				</button>
			</div>
		</Section>
	);
}

function Form({ form, kind }: { form: FormDto; kind: KindPageDto }) {
	const [said, setSaid] = useState(form);
	const [open, setOpen] = useState<string>();
	const act = useAct();
	const set = (part: Partial<FormDto>) => setSaid({ ...said, ...part });
	const wrong = (field: string) => act.refusal?.of(field);
	const setField = (at: number, part: Partial<FormField>) =>
		set({
			fields: said.fields.map((one, i) =>
				i === at ? { ...one, ...part } : one,
			),
		});
	function add() {
		const key = `q${Math.max(0, ...said.fields.map((one) => Number(/^q(\d+)$/.exec(one.key)?.[1] ?? 0))) + 1}`;
		set({
			fields: [
				...said.fields,
				{
					key,
					sort: "ShortText",
					label: "",
					required: false,
					hint: null,
					unit: null,
					options: null,
					fills: null,
					shownIf: null,
				},
			],
		});
		setOpen(key);
	}
	return (
		<div className="grid gap-6 py-3 xl:grid-cols-[1fr_390px]">
			<div className="grid content-start gap-3">
				<div className="grid gap-3 md:grid-cols-2">
					<TextField
						label="Title"
						value={said.title}
						wrong={wrong("title")}
						onChange={(e) => set({ title: e.target.value })}
					/>
					<TextField
						label="Usual source"
						hint="for inquiries that name none"
						value={said.source ?? ""}
						onChange={(e) => set({ source: e.target.value || null })}
					/>
				</div>
				<TextArea
					label="Above the questions"
					rows={2}
					value={said.intro}
					wrong={wrong("intro")}
					onChange={(e) => set({ intro: e.target.value })}
				/>
				<Questions
					fields={said.fields}
					open={open}
					fills={kind.fills}
					wrong={wrong}
					onOpen={setOpen}
					onOrder={(fields) => set({ fields })}
					onChange={setField}
				/>
				{wrong("fields") && <p className="wrong">{wrong("fields")}</p>}
				<div>
					<button type="button" className="btn" onClick={add}>
						Add a question
					</button>
				</div>
				{form.purpose === "Inquiry" && (
					<>
						<div className="grid gap-3 md:grid-cols-2">
							<TextField
								label="Said after sending"
								hint="empty: the usual words"
								value={said.thanks}
								wrong={wrong("thanks")}
								onChange={(e) => set({ thanks: e.target.value })}
							/>
							<TextField
								label="Or go on to this address"
								placeholder="https://"
								value={said.goTo ?? ""}
								wrong={wrong("goTo")}
								onChange={(e) => set({ goTo: e.target.value || null })}
							/>
						</div>
						<label className="flex gap-2.5">
							<input
								type="checkbox"
								className="mt-1 size-4 accent-(--ink)"
								checked={!said.closed}
								onChange={(e) => set({ closed: !e.target.checked })}
							/>
							<span>Open to everybody who has its address</span>
						</label>
					</>
				)}
				{act.refusal && <Alert>{act.refusal.message}</Alert>}
				<div className="flex gap-2">
					<button
						type="button"
						className="btn btn-go"
						disabled={act.busy || said === form}
						onClick={() =>
							act.run(() =>
								put(`/api/forms/${form.id}`, {
									title: said.title,
									intro: said.intro,
									fields: said.fields,
									thanks: said.thanks,
									goTo: said.goTo,
									source: said.source,
									closed: said.closed,
									edition: form.edition,
								}),
							)
						}
					>
						Keep the form
					</button>
					{form.closed && (
						<button
							type="button"
							className="btn"
							disabled={act.busy}
							onClick={() => act.run(() => remove(`/api/forms/${form.id}`))}
						>
							Take the form away
						</button>
					)}
				</div>
				{form.purpose === "Inquiry" && <Snippets form={form} />}
			</div>
			<Preview form={said} />
		</div>
	);
}

function Snippets({ form }: { form: FormDto }) {
	return (
		<details>
			<summary className="font-[600]">Set it into your own site</summary>
			<p className="under py-1">
				Once set in, it follows every change of the form by itself.
			</p>
			<TextArea
				label="As a script, which grows with the form"
				rows={2}
				readOnly
				value={form.snippet}
			/>
			<TextArea
				label="As a frame, where scripts are not allowed"
				rows={3}
				readOnly
				value={form.frameSnippet}
			/>
			<a className="link" href={`/sample-site/${form.slug}`}>
				See it in a sample site
			</a>
		</details>
	);
}

/** The form as its visitor sees it; narrow as on a phone, or wide. */
function Preview({ form }: { form: FormDto }) {
	const [answers, setAnswers] = useState<Answers>({});
	const [narrow, setNarrow] = useState(true);
	return (
		<section aria-label="As a visitor sees it" className="min-w-0">
			<div className="flex items-baseline gap-3 pb-1">
				<h3>As a visitor sees it</h3>
				<button
					type="button"
					className="link text-small"
					aria-pressed={narrow}
					onClick={() => setNarrow(!narrow)}
				>
					{narrow ? "wider" : "as on a phone"}
				</button>
			</div>
			<div
				className={`client max-h-[70vh] overflow-auto border border-hair bg-sheet p-4 text-[16px] ${narrow ? "max-w-[390px]" : ""}`}
			>
				<h4 className="font-head text-[24px] font-[680]">{form.title}</h4>
				<p className="pb-3 whitespace-pre-line">{form.intro}</p>
				<div className="grid gap-4">
					{shownFields(form.fields, answers).map((field) => (
						<Field
							key={field.key}
							field={field}
							value={answers[field.key] ?? ""}
							onChange={(text) => setAnswers({ ...answers, [field.key]: text })}
						/>
					))}
				</div>
			</div>
		</section>
	);
}
