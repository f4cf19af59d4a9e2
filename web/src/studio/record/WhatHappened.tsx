import { type FormEvent, useState } from "react";
import type { HappenedSort, RecordDto } from "../../api/schema";
import { Alert, TextField } from "../../ui/Fields";
import { post } from "../../ui/http";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";

const words: Record<HappenedSort, string> = {
	Fit: "It is a fit",
	NotAFit: "It is not a fit",
	NotAnInquiry: "It is not an inquiry",
	Countersign: "I sign the contract",
	Call: "We spoke",
	NoAnswerNeeded: "It needs no answer",
	HandedOver: "I handed the work over",
	Approved: "They approved the work",
	Rest: "It rests",
	GoOn: "It goes on",
	GoneQuiet: "They went quiet",
	Lost: "They decided otherwise",
	TakenUp: "It is taken up again",
};

/** How the owner records what came outside Gesamt, and decides. */
export function WhatHappened({
	record,
	open,
	onClose,
}: {
	record: RecordDto;
	open: boolean;
	onClose: () => void;
}) {
	const [sort, setSort] = useState<HappenedSort>();
	const [text, setText] = useState("");
	const [on, setOn] = useState("");
	const [until, setUntil] = useState("");
	const act = useAct();
	async function say(event: FormEvent) {
		event.preventDefault();
		const done = await act.run(() =>
			post(`/api/projects/${record.id}/happened`, {
				sort,
				on: on || null,
				words: text || null,
				until: until || null,
			}),
		);
		if (!done) return;
		setSort(undefined);
		setText("");
		onClose();
	}
	return (
		<Window title="What happened?" open={open} onClose={onClose}>
			<form onSubmit={say} className="grid gap-3">
				<fieldset>
					<legend className="sr-only">What happened</legend>
					{record.canHappen.map((one) => (
						<label
							key={one}
							className="flex items-center gap-2.5 border-b border-hair py-1.5"
						>
							<input
								type="radio"
								name="sort"
								className="size-4 accent-(--ink)"
								checked={sort === one}
								onChange={() => setSort(one)}
							/>
							{words[one]}
						</label>
					))}
				</fieldset>
				{sort === "Call" && (
					<TextField
						label="What was said"
						value={text}
						wrong={act.refusal?.of("words")}
						onChange={(e) => setText(e.target.value)}
					/>
				)}
				{sort === "Countersign" && (
					<TextField
						label="Your full name, as your signature"
						value={text}
						wrong={act.refusal?.of("name")}
						onChange={(e) => setText(e.target.value)}
					/>
				)}
				{sort === "Rest" && (
					<TextField
						label="Until"
						type="date"
						hint="left empty, you are asked again in 14 days"
						value={until}
						wrong={act.refusal?.of("until")}
						onChange={(e) => setUntil(e.target.value)}
					/>
				)}
				{sort && sort !== "Rest" && sort !== "Countersign" && (
					<TextField
						label="On"
						type="date"
						hint="today, unless it was earlier"
						value={on}
						wrong={act.refusal?.of("on")}
						onChange={(e) => setOn(e.target.value)}
					/>
				)}
				{act.refusal && <Alert>{act.refusal.message}</Alert>}
				<button
					type="submit"
					className="btn btn-go"
					disabled={!sort || act.busy}
				>
					{sort ? `Record: ${words[sort]}` : "Choose what happened"}
				</button>
			</form>
		</Window>
	);
}
