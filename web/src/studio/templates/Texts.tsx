import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../../api/client";
import type { KindPageDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { OwnFile } from "../contract/SigningFields";
import { useAct } from "../useAct";
import { Section } from "./Section";

/** The kind's contract; a contract already sent or signed never changes. */
export function Contract({ kind }: { kind: KindPageDto }) {
	const [text, setText] = useState(kind.contract);
	const act = useAct();
	return (
		<Section title="Contract" under={kind.contract.title}>
			<div className="grid gap-3">
				<TextField
					label="Title"
					value={text.title}
					wrong={act.refusal?.of("title")}
					onChange={(e) => setText({ ...text, title: e.target.value })}
				/>
				<TextArea
					label="Text"
					rows={18}
					hint="Markdown: “## Scope” heads a numbered paragraph. A paragraph that begins with [if there is scaffold] stands only where it was chosen. What ships with Gesamt is a start, and no legal advice: have your contract read by somebody who knows the law where you work."
					value={text.body}
					wrong={act.refusal?.of("body") ?? act.refusal?.of("text")}
					onChange={(e) => setText({ ...text, body: e.target.value })}
				/>
				<Blanks />
				<OwnFile
					file={text.file}
					wrong={act.refusal?.of("file")}
					onChange={(file) => setText({ ...text, file })}
				/>
				<Tick
					label="Whoever signs types a code that goes to their mail address"
					under="can be changed for each proposal"
					checked={text.asksCode}
					onChange={(asksCode) => setText({ ...text, asksCode })}
				/>
				<Refused of={act.refusal} />
				<div>
					<Button
						kind="go"
						disabled={act.busy || text === kind.contract}
						onClick={() =>
							act.run(() =>
								answer(
									api.PUT("/api/kinds/{id}/contract", {
										params: { path: { id: kind.id } },
										body: {
											...text,
											edition: kind.contract.edition,
										},
									}),
								),
							)
						}
					>
						Keep the contract
					</Button>
				</div>
			</div>
		</Section>
	);
}

/** The blanks a letter or a contract may name. */
export function Blanks() {
	const names = useQuery({
		queryKey: ["blanks"],
		queryFn: () => answer(api.GET("/api/blanks")),
		staleTime: Number.POSITIVE_INFINITY,
	});
	return (
		<p className="under">
			The record fills blanks in square brackets:{" "}
			{names.data?.map((one) => `[${one}]`).join(" ")}. What stands by if it is
			not known goes behind it: [first name, or: there].
		</p>
	);
}
