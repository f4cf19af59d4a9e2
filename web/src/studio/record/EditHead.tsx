import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Popover } from "../../ui/Popover";
import { Refused } from "../../ui/Refused";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { useAct } from "../useAct";

/** Changes what a project is called, where it came from, and of which kinds it is besides its leading one. */
export function EditHead({ record }: { record: RecordDto }) {
	const { title, source, campaign, furtherKinds } = record.head;
	const now = {
		title,
		source: source ?? "",
		campaign: campaign ?? "",
		kinds: furtherKinds.map((kind) => kind.id),
	};
	const [said, setSaid] = useState(now);
	const [open, setOpen] = useState(false);
	const act = useAct();
	const kinds = useQuery({
		queryKey: ["kinds"],
		queryFn: () => answer(api.GET("/api/kinds")),
		enabled: open,
	});
	const others = kinds.data?.filter((kind) => kind.name !== record.head.kind);
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
			name="Change title, source and kinds"
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
				<TextField
					label="Campaign that brought it"
					value={said.campaign}
					wrong={act.refusal?.of("campaign")}
					onChange={(e) => setSaid({ ...said, campaign: e.target.value })}
				/>
				{others && others.length > 0 && (
					<fieldset>
						<legend className="label">
							{record.head.kind} leads; it is also
						</legend>
						{others.map((kind) => (
							<Tick
								key={kind.id}
								label={kind.name}
								checked={said.kinds.includes(kind.id)}
								onChange={(checked) =>
									setSaid({
										...said,
										kinds: checked
											? [...said.kinds, kind.id]
											: said.kinds.filter((one) => one !== kind.id),
									})
								}
							/>
						))}
						<p className="under">
							Their services and checklists are offered here too.
						</p>
					</fieldset>
				)}
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
