import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Popover } from "../../ui/Popover";
import { Refused } from "../../ui/Refused";
import { TextField } from "../../ui/TextField";
import { useAct } from "../useAct";

/** Changes what a project is called, and where it came from. */
export function EditHead({ record }: { record: RecordDto }) {
	const { title, source } = record.head;
	const now = { title, source: source ?? "" };
	const [said, setSaid] = useState(now);
	const [open, setOpen] = useState(false);
	const act = useAct();
	async function keep(event: FormEvent) {
		event.preventDefault();
		const kept = await act.run(() =>
			answer(
				api.PUT("/api/projects/{id}/head", {
					params: { path: { id: record.id } },
					body: said,
				}),
			),
		);
		if (kept) setOpen(false);
	}
	return (
		<Popover
			words="change"
			name="Change title and source"
			quiet
			open={open}
			onOpen={(opens) => {
				if (opens) setSaid(now);
				setOpen(opens);
			}}
		>
			<form onSubmit={keep} className="grid w-72 gap-3">
				<TextField
					label="Title"
					value={said.title}
					wrong={act.refusal?.of("title")}
					onChange={(e) => setSaid({ ...said, title: e.target.value })}
				/>
				<TextField
					label="Where it came from"
					value={said.source}
					wrong={act.refusal?.of("source")}
					onChange={(e) => setSaid({ ...said, source: e.target.value })}
				/>
				<Refused of={act.refusal} />
				<div>
					<Button kind="go" type="submit" disabled={act.busy}>
						Keep it
					</Button>
				</div>
			</form>
		</Popover>
	);
}
