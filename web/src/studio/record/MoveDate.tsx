import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { RecordDto, RedatingDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { DateField } from "../../ui/DateField";
import { Refused } from "../../ui/Refused";
import { Cell, Head, Table } from "../../ui/Table";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";
import { Window } from "../../ui/Window";
import { useAct } from "../useAct";

/** A date to be set or moved; without a name it is a new one. */
export type DateToMove = { name?: string; day: string | null };

/** Sets or moves a date of the project: old and new days are shown before anything is moved. */
export function MoveDate({
	record,
	date,
	onClose,
}: {
	record: RecordDto;
	date: DateToMove;
	onClose: () => void;
}) {
	const [name, setName] = useState(date.name ?? "");
	const [to, setTo] = useState(date.day ?? "");
	const [preview, setPreview] = useState<RedatingDto>();
	const [also, setAlso] = useState<string[]>([]);
	const act = useAct();
	const main = date.name === record.head.date.name;
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
							name: main ? null : name,
						},
					}),
				),
			),
		);
	async function go(event: FormEvent) {
		event.preventDefault();
		if (!preview) return move(false);
		if (!(await move(true))) return;
		onClose();
	}
	return (
		<Window
			title={
				date.name
					? `${date.day ? "Move the" : "Set the"} ${date.name.toLowerCase()}`
					: "Another date of this project"
			}
			open
			onClose={onClose}
			wide
		>
			<form onSubmit={go} className="grid gap-3">
				{!date.name && (
					<TextField
						label="What it is called"
						placeholder="hanging, print deadline, rehearsal"
						value={name}
						wrong={act.refusal?.of("name")}
						onChange={(e) => {
							setName(e.target.value);
							setPreview(undefined);
						}}
					/>
				)}
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
