import { useState } from "react";
import { answer, api } from "../../api/client";
import type { KindPageDto, KindSettingsDto } from "../../api/schema";
import { Alert } from "../../ui/Alert";
import { Button } from "../../ui/Button";
import { CountField } from "../../ui/CountField";
import { Select } from "../../ui/Select";
import { useAct } from "../useAct";
import { Brief } from "./KindBrief";
import { Details } from "./KindDetails";
import { Section } from "./Section";

/** What a kind wants to know, and how its brief is arranged. */
export function KindSettings({ kind }: { kind: KindPageDto }) {
	const [said, setSaid] = useState(kind.settings);
	const act = useAct();
	const set = (part: Partial<KindSettingsDto>) => setSaid({ ...said, ...part });
	const wrong = (field: string) => act.refusal?.of(field);
	return (
		<Section
			title="Details and brief"
			under={`${said.details.length} details, ${said.brief.length} parts of the brief`}
		>
			<Details
				details={said.details}
				wrong={wrong}
				onChange={(details) => set({ details })}
			/>
			<Brief
				parts={said.brief}
				wrong={wrong}
				onChange={(brief) => set({ brief })}
			/>
			<div className="grid gap-3 pt-4 md:grid-cols-2">
				<Select
					label="Follow-ups of an inquiry begin"
					value={said.followUps}
					onChange={(e) =>
						set({ followUps: e.target.value as KindSettingsDto["followUps"] })
					}
				>
					<option value="AtOnce">at once</option>
					<option value="WhenRead">when I have read the answers</option>
				</Select>
				<CountField
					label="An answer is promised within"
					hint="business days"
					min={1}
					value={said.replyWithin}
					wrong={wrong("replyWithin")}
					onChange={(count) => set({ replyWithin: count ?? 0 })}
				/>
			</div>
			{act.refusal && <Alert>{act.refusal.message}</Alert>}
			<Button
				kind="go"
				className="mt-3"
				disabled={act.busy || said === kind.settings}
				onClick={() =>
					act.run(() =>
						answer(
							api.PUT("/api/kinds/{id}/settings", {
								params: { path: { id: kind.id } },
								body: said,
							}),
						),
					)
				}
			>
				Keep details and brief
			</Button>
		</Section>
	);
}
