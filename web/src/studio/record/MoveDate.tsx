import { type FormEvent, useState } from "react";
import type { RecordDto, RedatingDto } from "../../api/schema";
import { Alert, TextField } from "../../ui/Fields";
import { post } from "../../ui/http";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";

/** Moves the date that matters: old and new days are shown before anything is moved. */
export function MoveDate({
	record,
	open,
	onClose,
}: {
	record: RecordDto;
	open: boolean;
	onClose: () => void;
}) {
	const [to, setTo] = useState(record.mainDay ?? "");
	const [preview, setPreview] = useState<RedatingDto>();
	const [also, setAlso] = useState<string[]>([]);
	const act = useAct();
	const move = (confirmed: boolean) =>
		act.run(async () =>
			setPreview(
				await post<RedatingDto>(`/api/projects/${record.id}/date`, {
					to,
					also,
					confirmed,
				}),
			),
		);
	async function go(event: FormEvent) {
		event.preventDefault();
		if (!preview) return move(false);
		if (!(await move(true))) return;
		setPreview(undefined);
		onClose();
	}
	return (
		<Window
			title={`${record.mainDate ? "Move the" : "Set the"} ${record.mainDateName.toLowerCase()}`}
			open={open}
			onClose={onClose}
			wide
		>
			<form onSubmit={go} className="grid gap-3">
				<TextField
					label="New date"
					type="date"
					value={to}
					wrong={act.refusal?.of("to")}
					onChange={(e) => {
						setTo(e.target.value);
						setPreview(undefined);
					}}
				/>
				{preview && <Preview preview={preview} also={also} onAlso={setAlso} />}
				{act.refusal && <Alert>{act.refusal.message}</Alert>}
				<button type="submit" className="btn btn-go" disabled={!to || act.busy}>
					{preview ? `Move it to ${preview.new}` : "Show what moves with it"}
				</button>
			</form>
		</Window>
	);
}

function Preview({
	preview,
	also,
	onAlso,
}: {
	preview: RedatingDto;
	also: string[];
	onAlso: (keys: string[]) => void;
}) {
	return (
		<div>
			<table className="w-full text-[14.3px]">
				<caption className="pb-1 text-left font-[650]">
					{preview.moved.length === 0
						? "Nothing hangs on this date yet."
						: `Moves with it, from ${preview.old ?? "no date"} to ${preview.new}`}
				</caption>
				{preview.moved.length > 0 && (
					<thead>
						<tr className="border-b-[1.5px] border-ink text-left text-small">
							<th className="pr-3 font-semibold">What</th>
							<th className="pr-3 font-semibold">Now</th>
							<th className="font-semibold">Then</th>
						</tr>
					</thead>
				)}
				<tbody>
					{preview.moved.map((one) => (
						<tr key={one.key} className="border-b border-hair align-top">
							<td className="py-1 pr-3">
								{one.ask ? (
									<label className="flex gap-2">
										<input
											type="checkbox"
											className="mt-1 size-4 accent-(--ink)"
											checked={also.includes(one.key)}
											onChange={(e) =>
												onAlso(
													e.target.checked
														? [...also, one.key]
														: also.filter((key) => key !== one.key),
												)
											}
										/>
										<span>
											{one.title}
											<span className="under block">
												{one.words}; tick to move it too
											</span>
										</span>
									</label>
								) : (
									<>
										{one.title}
										{one.words && (
											<span className="under block">{one.words}</span>
										)}
									</>
								)}
							</td>
							<td className="py-1 pr-3 whitespace-nowrap text-soft">
								{one.old}
							</td>
							<td className="py-1 whitespace-nowrap">
								{one.ask && !also.includes(one.key) ? (
									<span className="text-soft">stays</span>
								) : (
									one.new
								)}
							</td>
						</tr>
					))}
				</tbody>
			</table>
			{preview.staying > 0 && (
				<p className="under pt-2">
					{preview.staying === 1
						? "One thing that is done stays as it was."
						: `${preview.staying} things that are done stay as they were.`}
				</p>
			)}
		</div>
	);
}
