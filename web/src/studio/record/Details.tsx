import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import type { DetailDto, RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { DateField } from "../../ui/DateField";
import { Refused } from "../../ui/Refused";
import { Select } from "../../ui/Select";
import { SizeField } from "../../ui/SizeField";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";
import { useAct } from "../useAct";
import { Block } from "./Block";

/** What the kind wants to know of the project; what is needed for a fit and not known is said. */
export function Details({ record }: { record: RecordDto }) {
	const [open, setOpen] = useState(false);
	const { details } = record.about;
	if (details.length === 0) return null;
	const known = details.filter((one) => one.value || one.demanded);
	const doubts = details.filter((one) => one.said != null);
	return (
		<Block
			title="Details"
			aside={
				<Button kind="word" aria-expanded={open} onClick={() => setOpen(!open)}>
					{open ? "close" : "fill in"}
				</Button>
			}
		>
			{open ? (
				<Fill record={record} onDone={() => setOpen(false)} />
			) : (
				<dl className="grid grid-cols-[1fr_auto] gap-x-3 text-[14.3px]">
					{known.map((one) => (
						<div key={one.name} className="contents">
							<dt className="py-[2px] text-soft">
								{one.name}
								{one.private && ", mine alone"}
							</dt>
							<dd
								className={
									one.demanded && !one.value
										? "text-right font-[650]"
										: "text-right"
								}
							>
								{one.value
									? `${one.value}${one.unit ? ` ${one.unit}` : ""}`
									: one.demanded
										? "needed"
										: ""}
							</dd>
						</div>
					))}
				</dl>
			)}
			{doubts.map((one) => (
				<Doubt key={one.name} record={record} detail={one} />
			))}
		</Block>
	);
}

/** Their answer says something else than what is known: the owner says which is right. */
function Doubt({ record, detail }: { record: RecordDto; detail: DetailDto }) {
	const act = useAct();
	const decide = (take: boolean) =>
		act.run(() =>
			answer(
				api.POST("/api/projects/{id}/details/decide", {
					params: { path: { id: record.id } },
					body: {
						name: detail.name,
						take,
					},
				}),
			),
		);
	return (
		<div className="mt-2 border-t border-hair pt-2 text-[14.3px]">
			<p>
				<b className="font-[650]">{detail.name}:</b> their answer says “
				{detail.said}”, you have “{detail.value}”.
			</p>
			<div className="flex flex-wrap gap-2 pt-1.5">
				<Button disabled={act.busy} onClick={() => decide(true)}>
					Take “{detail.said}”
				</Button>
				<Button disabled={act.busy} onClick={() => decide(false)}>
					Keep “{detail.value}”
				</Button>
			</div>
			<Refused of={act.refusal} />
		</div>
	);
}

function Fill({ record, onDone }: { record: RecordDto; onDone: () => void }) {
	const [values, setValues] = useState<Record<string, string>>(() =>
		Object.fromEntries(
			record.about.details.map((one) => [one.name, one.value]),
		),
	);
	const act = useAct();
	async function keep(event: FormEvent) {
		event.preventDefault();
		const done = await act.run(() =>
			answer(
				api.PUT("/api/projects/{id}/details", {
					params: { path: { id: record.id } },
					body: { values },
				}),
			),
		);
		if (done) onDone();
	}
	return (
		<form onSubmit={keep} className="grid gap-2 pt-1">
			{record.about.details.map((one) => (
				<Detail
					key={one.name}
					detail={one}
					value={values[one.name] ?? ""}
					wrong={act.refusal?.of(one.name)}
					onChange={(text) => setValues({ ...values, [one.name]: text })}
				/>
			))}
			<Refused of={act.refusal} />
			<div>
				<Button kind="go" type="submit" disabled={act.busy}>
					Keep the details
				</Button>
			</div>
		</form>
	);
}

function Detail({
	detail,
	value,
	wrong,
	onChange,
}: {
	detail: DetailDto;
	value: string;
	wrong?: string;
	onChange: (text: string) => void;
}) {
	const label = `${detail.name}${detail.unit ? ` (${detail.unit})` : ""}`;
	if (detail.sort === "OneOf")
		return (
			<Select
				label={label}
				wrong={wrong}
				value={value}
				onChange={(e) => onChange(e.target.value)}
			>
				<option value="">not known</option>
				{detail.options?.map((option) => (
					<option key={option}>{option}</option>
				))}
			</Select>
		);
	if (detail.sort === "LongText")
		return (
			<TextArea
				label={label}
				wrong={wrong}
				rows={3}
				value={value}
				onChange={(e) => onChange(e.target.value)}
			/>
		);
	if (detail.sort === "Number" || detail.sort === "Amount")
		return (
			<SizeField
				label={label}
				wrong={wrong}
				sort={detail.sort}
				unit={detail.unit}
				value={value}
				onChange={onChange}
			/>
		);
	if (detail.sort === "Date")
		return (
			<DateField
				label={label}
				wrong={wrong}
				value={value}
				onChange={onChange}
			/>
		);
	return (
		<TextField
			label={label}
			wrong={wrong}
			value={value}
			onChange={(e) => onChange(e.target.value)}
		/>
	);
}
