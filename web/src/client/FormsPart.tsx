import { type FormEvent, useEffect, useRef, useState } from "react";
import { answer, api } from "../api/client";
import type { Refusal } from "../api/refusal";
import type { ClientFormDto, ClientPageDto } from "../api/schema";
import { Alert } from "../ui/Alert";
import { Button } from "../ui/Button";
import { Field } from "./FormFields";
import { type Answers, useShown } from "./useShown";

/** Forms that wait for the client. What is typed is kept, so that it can be gone on with later. */
export function FormsPart({
	page,
	link,
	reload,
}: {
	page: ClientPageDto;
	link: string;
	reload: () => Promise<void>;
}) {
	const [sent, setSent] = useState(false);
	return (
		<>
			{sent && page.parts.forms.length === 0 && (
				<p role="status" className="mb-6 bg-plaster p-4 font-[650]">
					Thank you, your answers have arrived.
				</p>
			)}
			{page.parts.forms.map((form) => (
				<Form
					key={form.slug}
					form={form}
					link={link}
					onSent={async () => {
						setSent(true);
						await reload();
					}}
				/>
			))}
		</>
	);
}

function Form({
	form,
	link,
	onSent,
}: {
	form: ClientFormDto;
	link: string;
	onSent: () => Promise<void>;
}) {
	const [answers, setAnswers] = useState<Answers>(form.given);
	const [refusal, setRefusal] = useState<Refusal>();
	const [sending, setSending] = useState(false);
	const element = useRef<HTMLFormElement>(null);
	const address = `/p/${link}/api/forms/${form.slug}`;
	const kept = useKeptDraft(
		link,
		form.slug,
		answers,
		sending ? answers : form.given,
	);
	useEffect(() => {
		if (refusal)
			element.current
				?.querySelector<HTMLElement>('[aria-invalid="true"]')
				?.focus();
	}, [refusal]);
	const shown = useShown(form.fields, answers);
	async function send(event: FormEvent) {
		event.preventDefault();
		setSending(true);
		try {
			await answer(
				api.POST("/p/{link}/api/forms/{slug}", {
					params: { path: { link, slug: form.slug } },
					body: {
						answers: Object.fromEntries(
							form.fields
								.filter((field) => answers[field.key])
								.map((field) => [field.key, answers[field.key] ?? ""]),
						),
					},
				}),
			);
			await onSent();
		} catch (error) {
			setRefusal(error as Refusal);
			setSending(false);
		}
	}
	return (
		<form
			ref={element}
			noValidate
			onSubmit={send}
			id={`form-${form.slug}`}
			aria-label={form.title}
			className="grid max-w-xl gap-4 pb-10"
		>
			<div>
				<h2 className="rule pb-1.5">{form.title}</h2>
				{form.intro && <p className="pt-2 whitespace-pre-line">{form.intro}</p>}
			</div>
			{shown.map((field) => (
				<Field
					key={field.key}
					field={field}
					value={answers[field.key] ?? ""}
					wrong={refusal?.of(field.key)}
					files={`${address}/files?`}
					onChange={(text) =>
						setAnswers((before) => ({ ...before, [field.key]: text }))
					}
				/>
			))}
			{refusal && (
				<Alert>
					{Object.keys(refusal.errors).length > 0
						? `Not sent yet: please look at ${form.fields
								.filter((field) => refusal.of(field.key))
								.map((field) => `“${field.label}”`)
								.join(", ")}.`
						: refusal.message}
				</Alert>
			)}
			<div className="flex items-center gap-3">
				<Button kind="brand" type="submit" disabled={sending}>
					{sending ? "Sending" : "Send the answers"}
				</Button>
				<span role="status" className="text-small text-soft">
					{kept}
				</span>
			</div>
		</form>
	);
}

/** Keeps what is typed with the studio, a moment after the last key; who leaves before takes nothing along. */
function useKeptDraft(
	link: string,
	slug: string,
	answers: Answers,
	/** What need not be kept: it was there before, or is being sent. */
	known: Answers,
) {
	const [said, setSaid] = useState("");
	const waiting = useRef<(keepalive: boolean) => void>(undefined);
	useEffect(() => {
		if (answers === known) return;
		const keep = (keepalive: boolean) => {
			waiting.current = undefined;
			answer(
				api.POST("/p/{link}/api/forms/{slug}/draft", {
					params: { path: { link, slug } },
					body: { answers },
					keepalive,
				}),
			).then(
				() => setSaid("Kept. You can go on later."),
				() => setSaid("Not kept yet: the studio cannot be reached."),
			);
		};
		waiting.current = keep;
		const timer = setTimeout(keep, 600, false);
		return () => {
			clearTimeout(timer);
			waiting.current = undefined;
		};
	}, [link, slug, answers, known]);
	useEffect(() => {
		const leave = () => waiting.current?.(true);
		window.addEventListener("pagehide", leave);
		return () => window.removeEventListener("pagehide", leave);
	}, []);
	return said;
}
