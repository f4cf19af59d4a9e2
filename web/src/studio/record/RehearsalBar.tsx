import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { MomentField } from "../../ui/MomentField";
import { Refused } from "../../ui/Refused";
import { useAct } from "../useAct";

/** A rehearsal's own clock, and winding it. */
export function RehearsalBar({ record }: { record: RecordDto }) {
	const [to, setTo] = useState("");
	const [said, setSaid] = useState("");
	const act = useAct();
	async function wind(until: string | null) {
		await act.run(async () => {
			const wound = await answer(
				api.POST("/api/projects/{id}/wind", {
					params: { path: { id: record.id } },
					body: {
						to: until,
					},
				}),
			);
			setSaid(
				wound.acted ? "" : "Nothing lies ahead that would act by itself.",
			);
		});
	}
	return (
		<section
			aria-label="Rehearsal"
			className="mx-5 mb-3 flex flex-wrap items-center gap-3 border-[1.5px] border-dashed border-ink px-4 py-2.5"
		>
			<p>
				<b className="font-[650]">A rehearsal.</b> Nothing leaves the house, and
				it counts nowhere. Its clock:{" "}
				<b className="num font-[650]">{record.head.rehearsalClock}</b>
			</p>
			<span className="ml-auto" />
			<Button
				disabled={act.busy}
				onClick={async () => {
					await act.run(async () => {
						const page = await answer(
							api.GET("/api/projects/{id}/rehearsed-page", {
								params: { path: { id: record.id } },
							}),
						);
						window.open(page.address, "_blank", "noreferrer");
					});
				}}
			>
				Be the client
			</Button>
			<Button kind="go" disabled={act.busy} onClick={() => wind(null)}>
				Wind to what comes next
			</Button>
			<form
				className="flex items-end gap-2"
				onSubmit={(event: FormEvent) => {
					event.preventDefault();
					wind(to);
				}}
			>
				<MomentField
					label="Wind to"
					hidden
					value={to}
					wrong={act.refusal?.of("to")}
					onChange={(at) => setTo(at)}
				/>
				<Button type="submit" disabled={act.busy || !to}>
					Wind
				</Button>
			</form>
			{said && <p role="status">{said}</p>}
			<Refused of={act.refusal} />
		</section>
	);
}
