import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Link } from "react-router";
import { answer, api } from "../../api/client";
import type { ChecklistDto, FormField, RecordDto } from "../../api/schema";
import { Field } from "../../client/FormFields";
import { useShown } from "../../client/useShown";
import { Button } from "../../ui/Button";
import { Choice, Choices } from "../../ui/Choice";
import { Refused } from "../../ui/Refused";
import { Shown } from "../../ui/Shown";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";
import { Block } from "./Block";

/** The checklists of one project. */
export const useChecklists = (project: number) =>
	useQuery({
		queryKey: ["project", project, "checklists"],
		queryFn: () =>
			answer(
				api.GET("/api/projects/{id}/checklists", {
					params: { path: { id: project } },
				}),
			),
	});

/** What the owner goes through on this project: a list a line, each opened to be answered. */
export function Checklists({ record }: { record: RecordDto }) {
	const lists = useChecklists(record.id);
	return (
		<Block title="Checklists">
			<Shown query={lists}>
				{(data) =>
					data.length === 0 ? (
						<p className="under">
							{record.head.kind} has no checklist yet.{" "}
							<Link to="/templates">Begin one under Templates</Link>, among the
							forms of its kind.
						</p>
					) : (
						data.map((list) => (
							<ChecklistLine key={list.id} project={record.id} list={list} />
						))
					)
				}
			</Shown>
		</Block>
	);
}

/** One checklist: how far it is, and a press to answer it. */
export function ChecklistLine({
	project,
	list,
}: {
	project: number;
	list: ChecklistDto;
}) {
	const [open, setOpen] = useState(false);
	return (
		<div className="py-[3px] text-[14.3px]">
			<Button
				kind="line"
				className="text-left hover:underline"
				onClick={() => setOpen(true)}
			>
				{list.title}
			</Button>
			<span className="under block">
				{[list.stands.words, list.stands.beforeDraft && "before every draft"]
					.filter(Boolean)
					.join(", ")}
			</span>
			{open && (
				<AnswerChecklist
					key={list.edition}
					project={project}
					list={list}
					onClose={() => setOpen(false)}
				/>
			)}
		</div>
	);
}

function AnswerChecklist({
	project,
	list,
	onClose,
}: {
	project: number;
	list: ChecklistDto;
	onClose: () => void;
}) {
	const [answers, setAnswers] = useState<Record<string, string>>(list.given);
	const shown = useShown(list.fields, answers);
	const act = useAct();
	async function keep(event: FormEvent) {
		event.preventDefault();
		const kept = await act.run(() =>
			answer(
				api.PUT("/api/projects/{id}/checklists/{form}", {
					params: { path: { id: project, form: list.id } },
					body: {
						answers: Object.fromEntries(
							shown.flatMap((field) =>
								answers[field.key] ? [[field.key, answers[field.key]!]] : [],
							),
						),
						edition: list.edition,
					},
				}),
			),
		);
		if (kept) onClose();
	}
	return (
		<Window title={list.title} open wide onClose={onClose}>
			<form onSubmit={keep} className="grid gap-3">
				{list.intro && <p className="whitespace-pre-line">{list.intro}</p>}
				{shown.map((field) => {
					const made = list.tasks[field.key];
					return (
						<div key={field.key}>
							<Question
								field={field}
								value={answers[field.key] ?? ""}
								wrong={act.refusal?.of(field.key)}
								onChange={(text) =>
									setAnswers({ ...answers, [field.key]: text })
								}
							/>
							{field.makes && (
								<p className="under">
									{made
										? `task: ${made.title}${made.done ? ", done" : ""}`
										: answers[field.key] === field.makes.answer
											? `makes the task “${field.makes.title}”`
											: ""}
								</p>
							)}
						</div>
					);
				})}
				<Refused of={act.refusal} />
				<div>
					<Button kind="go" type="submit" disabled={act.busy}>
						Keep the answers
					</Button>
				</div>
			</form>
		</Window>
	);
}

const fewChoices = 4;

/** A choice of few stands in sight, so that one press answers it; all else is a field of a form. */
function Question({
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
	const options = field.options ?? [];
	if (field.sort !== "OneOf" || options.length > fewChoices)
		return (
			<Field
				field={{ ...field, required: true }}
				value={value}
				wrong={wrong}
				onChange={onChange}
			/>
		);
	return (
		<Choices
			label={field.label}
			wrong={wrong}
			className="flex flex-wrap gap-1.5"
			value={value}
			onChange={onChange}
		>
			{options.map((option) => (
				<Choice key={option} value={option} chip>
					{option}
				</Choice>
			))}
		</Choices>
	);
}
