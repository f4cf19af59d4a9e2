import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../../api/client";
import type { FormPurpose, KindPageDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { Shown } from "../../ui/Shown";
import { TextField } from "../../ui/TextField";
import { useAct } from "../useAct";
import { Form } from "./Form";
import { Section } from "./Section";

const purposes: Record<FormPurpose, string> = {
	Inquiry: "inquiries",
	Questionnaire: "questions to a client",
	Feedback: "feedback",
	Checklist: "a checklist of your own",
};

/** The forms of a kind: public ones for inquiries, and those put to clients. */
export function Forms({ kind }: { kind: KindPageDto }) {
	const [open, setOpen] = useState<number>();
	const [title, setTitle] = useState("");
	const [purpose, setPurpose] = useState<FormPurpose>("Inquiry");
	const act = useAct();
	const forms = useQuery({
		queryKey: ["forms", kind.id],
		queryFn: () =>
			answer(
				api.GET("/api/kinds/{id}/forms", { params: { path: { id: kind.id } } }),
			),
	});
	return (
		<Section
			id="forms"
			title="Forms"
			under={forms.data ? forms.data.map((form) => form.title).join(", ") : ""}
		>
			<Shown query={forms}>
				{(data) => (
					<ul>
						{data.map((form) => (
							<li key={form.id} className="border-b border-hair py-1.5">
								<Button
									kind="line"
									className="font-[600]"
									aria-expanded={open === form.id}
									onClick={() =>
										setOpen(open === form.id ? undefined : form.id)
									}
								>
									{form.title}
								</Button>{" "}
								<span className="under">
									{form.purpose === "Checklist" ? (
										`your own checklist${form.beforeDraft ? ", before every draft" : ""}`
									) : form.purpose !== "Inquiry" ? (
										`${purposes[form.purpose]}, ${form.usedBy.length > 0 ? `put by ${form.usedBy.join(", ")}` : "by hand"}`
									) : form.closed ? (
										"closed"
									) : (
										<Button asChild kind="word">
											<a href={`/i/${form.slug}`}>{form.address}</a>
										</Button>
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
				<Button
					disabled={act.busy || !title.trim()}
					onClick={async () => {
						const made = await act.run(async () => {
							const { id } = await answer(
								api.POST("/api/kinds/{id}/forms", {
									params: { path: { id: kind.id } },
									body: { title, purpose },
								}),
							);
							setOpen(id);
						});
						if (made) setTitle("");
					}}
				>
					Begin the form
				</Button>
			</div>
			<Refused of={act.refusal} />
		</Section>
	);
}
