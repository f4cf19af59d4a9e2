import type { RecordDto } from "../../api/schema";
import { Select } from "../../ui/Select";
import { Tick } from "../../ui/Tick";
import { useKinds } from "./useMeetingKinds";

/** What is decided with a letter. */
export type SaidWith = { fit: boolean; offers?: number };

/** Says with a letter that an inquiry is a fit, and lets the client choose a time. */
export function With({
	record,
	said,
	wrong,
	onChange,
}: {
	record: RecordDto;
	said: SaidWith;
	wrong?: string;
	onChange: (said: SaidWith) => void;
}) {
	const kinds = useKinds();
	const canFit = record.path.happen.can.some((one) => one.sort === "Fit");
	const usual = kinds.data?.find(
		(one) => (one.when === "AfterBooking") === record.path.booked,
	);
	const canOffer =
		!record.path.ended &&
		!record.sheet.meetings.offered &&
		usual !== undefined &&
		(canFit || said.offers !== undefined);
	if (!canFit && !canOffer) return null;
	return (
		<fieldset className="grid gap-1.5 border-t border-hair pt-2.5">
			<legend className="sr-only">With this letter</legend>
			{canFit && (
				<Tick
					label="With it I say that it is a fit"
					checked={said.fit}
					onChange={(fit) => onChange({ ...said, fit })}
				/>
			)}
			{canOffer && (
				<Tick
					label={`They can choose a time: ${kinds.data?.find((one) => one.id === (said.offers ?? usual.id))?.name}`}
					checked={said.offers !== undefined}
					onChange={(offered) =>
						onChange({ ...said, offers: offered ? usual.id : undefined })
					}
				/>
			)}
			{said.offers !== undefined && (kinds.data?.length ?? 0) > 1 && (
				<Select
					label="Kind of meeting"
					hidden
					value={said.offers}
					wrong={wrong}
					onChange={(e) =>
						onChange({ ...said, offers: Number(e.target.value) })
					}
				>
					{kinds.data?.map((one) => (
						<option key={one.id} value={one.id}>
							{one.name}, {one.minutes} minutes
						</option>
					))}
				</Select>
			)}
		</fieldset>
	);
}

/** The letter with the way to the choice of times, before its last lines. */
export function withLink(body: string): string {
	const paragraphs = body.trimEnd().split("\n\n");
	const last = paragraphs.length > 1 ? paragraphs.pop() : undefined;
	return [
		...paragraphs,
		"Choose a time that suits you, and we speak about it: [page link]",
		...(last ? [last] : []),
	].join("\n\n");
}
