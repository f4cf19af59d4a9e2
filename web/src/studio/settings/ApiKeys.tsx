import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../../api/client";
import type { MadeApiKeyDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Shown } from "../../ui/Shown";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { Section } from "../templates/Section";
import { useAct } from "../useAct";

/** Keys for programs that read the studio, or bring inquiries. */
export function ApiKeys() {
	const [made, setMade] = useState<MadeApiKeyDto>();
	const [said, setSaid] = useState({
		name: "",
		mayRead: true,
		mayInquire: false,
	});
	const act = useAct();
	const keys = useQuery({
		queryKey: ["keys"],
		queryFn: () => answer(api.GET("/api/keys")),
	});
	return (
		<Section title="Keys for programs" under="to read, or to bring inquiries">
			<Shown query={keys}>
				{(data) => (
					<>
						{data.map((key) => (
							<p
								key={key.id}
								className="flex flex-wrap gap-x-3 border-b border-hair py-1.5"
							>
								<b className="font-[600]">{key.name}</b>
								<code className="text-soft">{key.begins}…</code>
								<span className="text-soft">
									{[
										key.mayRead && "reads",
										key.mayInquire && "brings inquiries",
									]
										.filter(Boolean)
										.join(", ")}
									, {key.used ? `last used ${key.used}` : "never used"}
								</span>
								<Button
									kind="word"
									size="small"
									className="ml-auto"
									disabled={act.busy}
									onClick={() =>
										act.run(() =>
											answer(
												api.DELETE("/api/keys/{id}", {
													params: { path: { id: key.id } },
												}),
											),
										)
									}
								>
									end it<span className="sr-only">: {key.name}</span>
								</Button>
							</p>
						))}
						{data.length === 0 && (
							<p className="py-1 text-soft">
								No program has a key. What a key can do is described at{" "}
								<Button asChild kind="word">
									<a href="/openapi/v1.json">/openapi/v1.json</a>
								</Button>{" "}
								under “open”.
							</p>
						)}
					</>
				)}
			</Shown>
			{made && (
				<p role="status" className="border-l-4 border-ink py-2 pl-3">
					Copy it now, it is shown only once: <br />
					<code className="break-all">{made.key}</code>
				</p>
			)}
			<form
				className="grid gap-2 pt-3"
				onSubmit={(event) => {
					event.preventDefault();
					act.run(async () => {
						setMade(await answer(api.POST("/api/keys", { body: said })));
						setSaid({ ...said, name: "" });
					});
				}}
			>
				<div className="max-w-sm">
					<TextField
						label="A new key"
						placeholder="What it is for"
						value={said.name}
						wrong={act.refusal?.of("name")}
						onChange={(e) => setSaid({ ...said, name: e.target.value })}
					/>
				</div>
				<Tick
					label="May read projects and people"
					checked={said.mayRead}
					onChange={(mayRead) => setSaid({ ...said, mayRead })}
				/>
				<Tick
					label="May bring new inquiries"
					checked={said.mayInquire}
					onChange={(mayInquire) => setSaid({ ...said, mayInquire })}
				/>
				<Refused of={act.refusal} />
				<div>
					<Button type="submit" disabled={act.busy || !said.name.trim()}>
						Make the key
					</Button>
				</div>
			</form>
		</Section>
	);
}
