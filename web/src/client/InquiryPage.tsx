import {
	type FormEvent,
	useCallback,
	useEffect,
	useRef,
	useState,
} from "react";
import { answer, api } from "../api/client";
import type { Refusal } from "../api/refusal";
import type { PublicFormDto, ThanksDto } from "../api/schema";
import { Alert } from "../ui/Alert";
import { Button } from "../ui/Button";
import { Honeypot } from "../ui/Honeypot";
import { Field } from "./FormFields";
import { Failed, Frame, Notice } from "./Frame";
import { useLoaded } from "./useLoaded";
import { type Answers, useShown } from "./useShown";

/** A form for strangers: no account, one page, says what happens next. */
export default function InquiryPage({ slug }: { slug: string }) {
	const { data: form, error } = useLoaded(
		useCallback(
			() => answer(api.GET("/forms/{slug}", { params: { path: { slug } } })),
			[slug],
		),
	);
	const [thanks, setThanks] = useState<ThanksDto>();
	const embedded = new URLSearchParams(location.search).has("embedded");
	useTellsItsHeight(embedded);
	useEffect(() => {
		if (form) document.title = `${form.title}, ${form.studio}`;
	}, [form]);
	if (error) return <Failed error={error} />;
	if (!form) return <Notice title="One moment" />;
	const page = form.closed ? (
		<div className="max-w-xl py-6">
			<h1 className="mb-3 text-[28px]">{form.title}</h1>
			<p>
				This form is closed at the moment. Write to{" "}
				<Button asChild kind="word">
					<a href={`mailto:${form.mail}`}>{form.mail}</a>
				</Button>{" "}
				instead.
			</p>
		</div>
	) : thanks ? (
		<div role="status" className="max-w-xl py-6">
			<h1 className="mb-3 text-[28px]">{thanks.words}</h1>
			<p>{thanks.next}</p>
		</div>
	) : (
		<Form
			slug={slug}
			form={form}
			onSent={(said) => {
				if (said.goTo) (window.top ?? window).location.href = said.goTo;
				else setThanks(said);
			}}
		/>
	);
	if (embedded)
		return (
			<main
				className="client bg-sheet p-4 text-[16px]"
				style={{ "--brand": form.brand } as React.CSSProperties}
			>
				{page}
			</main>
		);
	return (
		<Frame
			studio={form.studio}
			brand={form.brand}
			logo={form.logo}
			right={form.mail}
		>
			{page}
		</Frame>
	);
}

/** A page around it lets the frame grow with the form. */
function useTellsItsHeight(embedded: boolean) {
	useEffect(() => {
		if (!embedded) return;
		const observer = new ResizeObserver(() =>
			window.parent.postMessage(
				{ formHeight: document.documentElement.scrollHeight + 8 },
				"*",
			),
		);
		observer.observe(document.body);
		return () => observer.disconnect();
	}, [embedded]);
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
	const [answers, setAnswers] = useState<Answers>(() =>
		JSON.parse(sessionStorage.getItem(kept) ?? "{}"),
	);
	const [refusal, setRefusal] = useState<Refusal>();
	const [sending, setSending] = useState(false);
	const element = useRef<HTMLFormElement>(null);
	const fields = useShown(form.fields, answers);

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
			const thanks = await answer(
				api.POST("/forms/{slug}", {
					params: { path: { slug } },
					body: {
						answers: Object.fromEntries(
							form.fields
								.filter((field) => answers[field.key])
								.map((field) => [field.key, answers[field.key] ?? ""]),
						),
						token: form.token,
						website,
						campaign: new URLSearchParams(location.search).get("campaign"),
					},
				}),
			);
			sessionStorage.removeItem(kept);
			onSent(thanks);
		} catch (error) {
			setRefusal(error as Refusal);
		} finally {
			setSending(false);
		}
	}

	return (
		<form
			ref={element}
			noValidate
			onSubmit={send}
			className="grid max-w-xl gap-4 pb-10"
		>
			<div>
				<h1 className="mt-2 mb-2 text-[28px]">{form.title}</h1>
				<p className="whitespace-pre-line">{form.intro}</p>
			</div>
			{fields.map((field) => (
				<Field
					key={field.key}
					field={field}
					value={answers[field.key] ?? ""}
					wrong={refusal?.of(field.key)}
					files={`/forms/${slug}/files?token=${encodeURIComponent(form.token)}`}
					onChange={(text) =>
						setAnswers((before) => ({ ...before, [field.key]: text }))
					}
				/>
			))}
			<Honeypot name="website" />
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
				<Button kind="brand" type="submit" disabled={sending}>
					{sending ? "Sending" : "Send the inquiry"}
				</Button>
			</div>
		</form>
	);
}
