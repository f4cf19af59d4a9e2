import { type FormEvent, useState } from "react";
import { Link } from "react-router";
import { answer, api } from "../api/client";
import { Button } from "../ui/Button";
import { Refused } from "../ui/Refused";
import { TextField } from "../ui/TextField";
import { useAct } from "./useAct";

type On = { project?: number; person?: number };

/** Labels on a project or a person: the owner's alone. */
export function Labels({ labels, on }: { labels: readonly string[]; on: On }) {
	const [label, setLabel] = useState("");
	const act = useAct();
	const body = (name: string) => ({
		label: name,
		project: on.project ?? null,
		person: on.person ?? null,
		task: null,
	});
	async function put(event: FormEvent) {
		event.preventDefault();
		if (
			await act.run(() =>
				answer(api.POST("/api/labels", { body: body(label) })),
			)
		)
			setLabel("");
	}
	return (
		<form
			onSubmit={put}
			className="flex flex-wrap items-baseline gap-x-3 gap-y-1"
		>
			{labels.map((one) => (
				<span key={one} className="text-[14px]">
					<Button asChild kind="word">
						<Link to={`/labels/${encodeURIComponent(one)}`}>{one}</Link>
					</Button>{" "}
					<Button
						kind="line"
						className="under"
						aria-label={`Take off the label ${one}`}
						onClick={() =>
							act.run(() =>
								answer(api.POST("/api/labels/off", { body: body(one) })),
							)
						}
					>
						off
					</Button>
				</span>
			))}
			<div className="w-32">
				<TextField
					label="Add a label"
					hidden
					placeholder="Add a label"
					value={label}
					wrong={act.refusal?.of("label")}
					onChange={(e) => setLabel(e.target.value)}
				/>
			</div>
			<Refused of={act.refusal} />
		</form>
	);
}
