import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { RecordDto, RedatingDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { DateField } from "../../ui/DateField";
import { Refused } from "../../ui/Refused";
import { Cell, Head, Table } from "../../ui/Table";
import { Tick } from "../../ui/Tick";
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
	const [to, setTo] = useState(record.head.date.day ?? "");
	const [preview, setPreview] = useState<RedatingDto>();
	const [also, setAlso] = useState<string[]>([]);
	const act = useAct();
	const move = (confirmed: boolean) =>
		act.run(async () =>
			setPreview(
				await answer(
					api.POST("/api/projects/{id}/date", {
						params: { path: { id: record.id } },
						body: {
							to,
							also,
							confirmed,
						},
					}),
				),
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
			title={`${record.head.date.words ? "Move the" : "Set the"} ${record.head.date.name.toLowerCase()}`}
			open={open}
			onClose={onClose}
			wide
		>
			<form onSubmit={go} className="grid gap-3">
				<DateField
					label="New date"
					value={to}
					wrong={act.refusal?.of("to")}
					onChange={(day) => {
						setTo(day);
						setPreview(undefined);
					}}
				/>
				{preview && <Preview preview={preview} also={also} onAlso={setAlso} />}
				<Refused of={act.refusal} />
				<Button kind="go" type="submit" disabled={!to || act.busy}>
					{preview ? `Move it to ${preview.new}` : "Show what moves with it"}
				</Button>
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
			<Table
				shown
				caption={
					preview.moved.length === 0
						? "Nothing hangs on this date yet."
						: `Moves with it, from ${preview.old ?? "no date"} to ${preview.new}`
				}
				head={
					preview.moved.length > 0 && (
						<tr>
							<Head>What</Head>
							<Head>Now</Head>
							<Head>Then</Head>
						</tr>
					)
				}
			>
				<tbody>
					{preview.moved.map((one) => (
						<tr key={one.key}>
							<Cell>
								{one.ask ? (
									<Tick
										label={
											<>
												{one.title}
												<span className="under block">
													{one.words}; tick to move it too
												</span>
											</>
										}
										checked={also.includes(one.key)}
										onChange={(checked) =>
											onAlso(
												checked
													? [...also, one.key]
													: also.filter((key) => key !== one.key),
											)
										}
									/>
								) : (
									<>
										{one.title}
										{one.words && (
											<span className="under block">{one.words}</span>
										)}
									</>
								)}
							</Cell>
							<Cell className="whitespace-nowrap text-soft">{one.old}</Cell>
							<Cell className="whitespace-nowrap">
								{one.ask && !also.includes(one.key) ? (
									<span className="text-soft">stays</span>
								) : (
									one.new
								)}
							</Cell>
						</tr>
					))}
				</tbody>
			</Table>
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
