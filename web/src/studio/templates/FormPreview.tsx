import { useState } from "react";
import type { FormDto } from "../../api/schema";
import { Field } from "../../client/FormFields";
import { type Answers, useShown } from "../../client/useShown";
import { Button } from "../../ui/Button";

/** The form as its visitor sees it; narrow as on a phone, or wide. */
export function Preview({ form }: { form: FormDto }) {
	const [answers, setAnswers] = useState<Answers>({});
	const shown = useShown(form.fields, answers);
	const [narrow, setNarrow] = useState(true);
	return (
		<section aria-label="As a visitor sees it" className="min-w-0">
			<div className="flex items-baseline gap-3 pb-1">
				<h3>As a visitor sees it</h3>
				<Button
					kind="word"
					size="small"
					aria-pressed={narrow}
					onClick={() => setNarrow(!narrow)}
				>
					{narrow ? "wider" : "as on a phone"}
				</Button>
			</div>
			<div
				className={`client max-h-[70vh] overflow-auto border border-hair bg-sheet p-4 text-[16px] ${narrow ? "max-w-[390px]" : ""}`}
			>
				<h4 className="font-head text-[24px] font-[680]">{form.title}</h4>
				<p className="pb-3 whitespace-pre-line">{form.intro}</p>
				<div className="grid gap-4">
					{shown.map((field) => (
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
