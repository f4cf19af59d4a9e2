import { type FormEvent, useEffect, useRef, useState } from "react";
import type { FormField, PublicFormDto, ThanksDto } from "../api/schema";
import { Alert, Select, TextArea, TextField } from "../ui/Fields";
import { post, type Refusal } from "../ui/http";
import { Failed, Frame, Notice } from "./Frame";
import { useLoaded } from "./useLoaded";

/** A form for strangers: no account, one page, says what happens next. */
export function InquiryPage({ slug }: { slug: string }) {
	const { data: form, error } = useLoaded<PublicFormDto>(`/forms/${slug}`);
	const [thanks, setThanks] = useState<ThanksDto>();
	useEffect(() => {
		if (form) document.title = `${form.title}, ${form.studio}`;
	}, [form]);
	if (error) return <Failed error={error} />;
	if (!form) return <Notice title="One moment" />;
	return (
		<Frame studio={form.studio} brand={form.brand} right={form.mail}>
			{thanks ? (
				<div role="status" className="max-w-xl py-6">
					<h1 className="mb-3 text-[28px]">{thanks.words}</h1>
					<p>{thanks.next}</p>
				</div>
			) : (
				<Form slug={slug} form={form} onSent={setThanks} />
			)}
		</Frame>
	);
}

function Form({
	slug,
	form,
	onSent,
}: {
	slug: string;
	form: PublicFormDto;
	onSent: (thanks: ThanksDto) => void;
}) {
	const kept = `inquiry:${slug}`;
	const [answers, setAnswers] = useState<Record<string, string>>(() =>
		JSON.parse(sessionStorage.getItem(kept) ?? "{}"),
	);
	const [refusal, setRefusal] = useState<Refusal>();
	const [sending, setSending] = useState(false);
	const element = useRef<HTMLFormElement>(null);

	// what is typed survives a reload
	useEffect(
		() => sessionStorage.setItem(kept, JSON.stringify(answers)),
		[kept, answers],
	);
	useEffect(() => {
		if (refusal)
			element.current
				?.querySelector<HTMLElement>('[aria-invalid="true"]')
				?.focus();
	}, [refusal]);

	async function send(event: FormEvent<HTMLFormElement>) {
		event.preventDefault();
		setSending(true);
		try {
			const website = new FormData(event.currentTarget)
				.get("website")
				?.toString();
			const thanks = await post<ThanksDto>(`/forms/${slug}`, {
				answers,
				website,
			});
			sessionStorage.removeItem(kept);
			onSent(thanks);
		} catch (error) {
			setRefusal(error as Refusal);
		} finally {
			setSending(false);
		}
	}

	const set = (key: string, text: string) =>
		setAnswers((before) => ({ ...before, [key]: text }));
	return (
		<form
			ref={element}
			noValidate
			onSubmit={send}
			className="grid max-w-xl gap-4 pb-10"
		>
			<div>
				<h1 className="mt-2 mb-2 text-[28px]">{form.title}</h1>
				<p>{form.intro}</p>
			</div>
			{form.fields.map((field) => (
				<Field
					key={field.key}
					field={field}
					value={answers[field.key] ?? ""}
					wrong={refusal?.of(field.key)}
					onChange={(text) => set(field.key, text)}
				/>
			))}
			<div className="absolute -left-[9999px]" aria-hidden="true">
				<input name="website" tabIndex={-1} autoComplete="off" />
			</div>
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
			<div>
				<button className="btn btn-brand" type="submit" disabled={sending}>
					{sending ? "Sending" : "Send the inquiry"}
				</button>
			</div>
		</form>
	);
}

const inputTypes: Partial<Record<FormField["sort"], string>> = {
	Date: "date",
	Mail: "email",
	Phone: "tel",
};

function Field({
	field,
	value,
	wrong,
	onChange,
}: {
	field: FormField;
	value: string;
	wrong?: string;
	onChange: (text: string) => void;
}) {
	const shared = {
		label: `${field.label}${field.unit ? ` (${field.unit})` : ""}${field.required ? "" : ", if you like"}`,
		hint: field.hint,
		wrong,
	};
	if (field.sort === "Consent")
		return (
			<label className="flex items-start gap-3">
				<input
					type="checkbox"
					className="mt-1 size-5 shrink-0 accent-(--brand)"
					checked={value === "yes"}
					aria-invalid={Boolean(wrong)}
					onChange={(e) => onChange(e.target.checked ? "yes" : "")}
				/>
				<span>
					{field.label}
					{wrong && <span className="wrong block">{wrong}</span>}
				</span>
			</label>
		);
	if (field.sort === "OneOf")
		return (
			<Select
				{...shared}
				value={value}
				onChange={(e) => onChange(e.target.value)}
			>
				<option value="">Choose</option>
				{field.options?.map((option) => (
					<option key={option}>{option}</option>
				))}
			</Select>
		);
	if (field.sort === "LongText")
		return (
			<TextArea
				{...shared}
				rows={4}
				value={value}
				onChange={(e) => onChange(e.target.value)}
			/>
		);
	return (
		<TextField
			{...shared}
			type={inputTypes[field.sort] ?? "text"}
			inputMode={field.sort === "Number" ? "decimal" : undefined}
			value={value}
			onChange={(e) => onChange(e.target.value)}
		/>
	);
}
