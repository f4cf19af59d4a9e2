import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../../api/client";
import type { RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { useAct } from "../useAct";
import { Block } from "./Block";
import { Carried } from "./Carried";

const useForms = (project: number) =>
	useQuery({
		queryKey: ["project", project, "forms"],
		queryFn: () =>
			answer(
				api.GET("/api/projects/{id}/forms", {
					params: { path: { id: project } },
				}),
			),
	});

/** Forms that are with the client, and those that can be put to them. */
export function AskForms({
	record,
	onAsk,
}: {
	record: RecordDto;
	onAsk: () => void;
}) {
	const forms = useForms(record.id);
	const act = useAct();
	if (!forms.data) return null;
	const { open, choices } = forms.data;
	if (open.length === 0 && (choices.length === 0 || record.path.ended))
		return null;
	return (
		<Block
			title="Forms"
			aside={
				choices.length > 0 &&
				!record.path.ended && (
					<Button kind="word" onClick={onAsk}>
						put one to the client
					</Button>
				)
			}
		>
			{open.map((form) => (
				<p key={form.slug} className="flex gap-3 py-0.5 text-[14.3px]">
					{form.title}
					<span className="ml-auto text-soft">
						with the client since {form.since}
					</span>
					<Button
						kind="word"
						size="small"
						disabled={act.busy}
						onClick={() =>
							act.run(() =>
								answer(
									api.POST("/api/projects/{id}/forms/{slug}/back", {
										params: { path: { id: record.id, slug: form.slug } },
									}),
								),
							)
						}
					>
						take back<span className="sr-only">: {form.title}</span>
					</Button>
				</p>
			))}
			<Refused of={act.refusal} />
		</Block>
	);
}

/** Puts a form to the client, with the letter that asks for it. */
export function AskForm({
	record,
	onClose,
}: {
	record: RecordDto;
	onClose: () => void;
}) {
	const forms = useForms(record.id);
	const [slug, setSlug] = useState("");
	const chosen = slug || forms.data?.choices[0]?.key || "";
	return (
		<Carried
			project={record.id}
			title="Put a form to the client"
			template="start-questions"
			button="Put it to the client"
			disabled={!chosen}
			onClose={onClose}
			send={(letter) =>
				answer(
					api.POST("/api/projects/{id}/forms", {
						params: { path: { id: record.id } },
						body: {
							slug: chosen,
							...letter,
						},
					}),
				)
			}
		>
			{(refusal) => (
				<Select
					label="Form"
					value={chosen}
					wrong={refusal?.of("slug")}
					onChange={(e) => setSlug(e.target.value)}
				>
					{forms.data?.choices.map((form) => (
						<option key={form.key} value={form.key}>
							{form.name}
						</option>
					))}
				</Select>
			)}
		</Carried>
	);
}
