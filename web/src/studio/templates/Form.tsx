import { useState } from "react";
import { answer, api } from "../../api/client";
import type { FormDto, FormField, KindPageDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { useAct } from "../useAct";
import { Preview } from "./FormPreview";
import { Snippets } from "./FormSnippets";
import { Questions } from "./Questions";

export function Form({ form, kind }: { form: FormDto; kind: KindPageDto }) {
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
					{form.purpose !== "Checklist" && (
						<TextField
							label="Usual source"
							hint="for inquiries that name none"
							value={said.source ?? ""}
							onChange={(e) => set({ source: e.target.value || null })}
						/>
					)}
				</div>
				<TextArea
					label="Above the questions"
					rows={2}
					value={said.intro}
					wrong={wrong("intro")}
					onChange={(e) => set({ intro: e.target.value })}
				/>
				<Questions
					checklist={form.purpose === "Checklist"}
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
					<Button onClick={add}>Add a question</Button>
				</div>
				{form.purpose === "Inquiry" && (
					<>
						<div className="grid gap-3 md:grid-cols-2">
							<TextField
								label="Its address"
								hint={
									said.slug === form.slug
										? form.address
										: `${form.address.slice(0, -form.slug.length)}${said.slug}; ${form.address} goes on leading here`
								}
								value={said.slug}
								wrong={wrong("slug")}
								onChange={(e) => set({ slug: e.target.value })}
							/>
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
						<Tick
							label="Open to everybody who has its address"
							checked={!said.closed}
							onChange={(checked) => set({ closed: !checked })}
						/>
					</>
				)}
				{form.purpose === "Checklist" && (
					<Tick
						label="No draft is put up before it is gone through"
						under="for every round anew, and with the tasks that its answers made done"
						checked={said.beforeDraft}
						onChange={(beforeDraft) => set({ beforeDraft })}
					/>
				)}
				<Refused of={act.refusal} />
				<div className="flex gap-2">
					<Button
						kind="go"
						disabled={act.busy || said === form}
						onClick={() =>
							act.run(() =>
								answer(
									api.PUT("/api/forms/{id}", {
										params: { path: { id: form.id } },
										body: {
											title: said.title,
											intro: said.intro,
											fields: said.fields,
											thanks: said.thanks,
											goTo: said.goTo,
											source: said.source,
											closed: said.closed,
											edition: form.edition,
											slug: said.slug,
											beforeDraft: said.beforeDraft,
										},
									}),
								),
							)
						}
					>
						Keep the form
					</Button>
					{(form.closed || form.purpose === "Checklist") && (
						<Button
							disabled={act.busy}
							onClick={() =>
								act.run(() =>
									answer(
										api.DELETE("/api/forms/{id}", {
											params: { path: { id: form.id } },
										}),
									),
								)
							}
						>
							Take the form away
						</Button>
					)}
				</div>
				{form.purpose === "Inquiry" && <Snippets form={form} />}
			</div>
			<Preview form={said} />
		</div>
	);
}
