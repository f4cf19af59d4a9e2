import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../../api/client";
import type { BillDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { CountField } from "../../ui/CountField";
import { DateField } from "../../ui/DateField";
import { Menu } from "../../ui/Menu";
import { TextArea } from "../../ui/TextArea";
import { TextField } from "../../ui/TextField";

/** What the invoice says besides its lines. */
export function BillSays({
	project,
	bill,
	wrong,
	onChange,
}: {
	project: number;
	bill: BillDto;
	wrong: (field: string) => string | undefined;
	onChange: (bill: BillDto) => void;
}) {
	const says = bill.says;
	const set = (part: Partial<typeof says>) =>
		onChange({ ...bill, says: { ...says, ...part } });
	const exempt = bill.lines.some((line) => line.tax === "exempt");
	return (
		<section className="panel p-4" aria-label="What else it says">
			<h2 className="pb-2">What else it says</h2>
			<div className="grid gap-3 md:grid-cols-3">
				<div className="md:col-span-2">
					<TextField
						label="About"
						hint="below its title"
						value={says.about}
						wrong={wrong("about")}
						onChange={(e) => set({ about: e.target.value })}
					/>
				</div>
				<TextField
					label="Their reference"
					hint="an order number, if they have one"
					value={says.purchaseReference}
					wrong={wrong("purchaseReference")}
					onChange={(e) => set({ purchaseReference: e.target.value })}
				/>
				<DateField
					label="Performed from"
					back
					value={says.performedFrom ?? ""}
					wrong={wrong("performedFrom")}
					onChange={(day) => set({ performedFrom: day || null })}
				/>
				<DateField
					label="Until"
					hint="left empty, on that day"
					back
					value={says.performedUntil ?? ""}
					wrong={wrong("performedUntil")}
					onChange={(day) => set({ performedUntil: day || null })}
				/>
				<CountField
					label="Days to pay"
					min={0}
					value={says.dueDays}
					wrong={wrong("dueDays")}
					onChange={(count) => set({ dueDays: count ?? 0 })}
				/>
				<TextField
					label="Currency"
					hint="one for all of a project"
					value={bill.currency}
					wrong={wrong("currency")}
					onChange={(e) =>
						onChange({ ...bill, currency: e.target.value.toUpperCase() })
					}
				/>
				{exempt && (
					<div className="md:col-span-3">
						<TextField
							label="Exempt of tax, because"
							value={says.exemptReason}
							wrong={wrong("exemptReason")}
							onChange={(e) => set({ exemptReason: e.target.value })}
						/>
					</div>
				)}
				<div className="md:col-span-3">
					<TextArea
						label="Note"
						hint="below the sums"
						rows={2}
						value={says.note}
						wrong={wrong("note")}
						onChange={(e) => set({ note: e.target.value })}
					/>
				</div>
			</div>
			<Files
				project={project}
				files={says.files}
				onChange={(files) => set({ files })}
			/>
		</section>
	);
}

/** Files of the project that go with its letter. */
function Files({
	project,
	files,
	onChange,
}: {
	project: number;
	files: BillDto["says"]["files"];
	onChange: (files: BillDto["says"]["files"]) => void;
}) {
	const kept = useQuery({
		queryKey: ["project", project, "bill-files"],
		queryFn: () =>
			answer(
				api.GET("/api/projects/{id}/bill/files", {
					params: { path: { id: project } },
				}),
			),
	});
	const others = (kept.data ?? []).filter(
		(one) => !files.some((file) => file.hash === one.hash),
	);
	if (files.length + others.length === 0) return null;
	return (
		<div className="pt-3">
			<h3 className="text-[13px] text-soft">Files that go with the letter</h3>
			<ul>
				{files.map((file) => (
					<li key={file.hash} className="flex items-center gap-3 py-1">
						<span className="min-w-0 break-words">{file.name}</span>
						<Button
							size="small"
							onClick={() =>
								onChange(files.filter((one) => one.hash !== file.hash))
							}
						>
							Take out<span className="sr-only">: {file.name}</span>
						</Button>
					</li>
				))}
			</ul>
			{others.length > 0 && (
				<Menu
					words="Add a file of the project"
					items={others.map((one) => ({
						key: one.hash,
						words: one.name,
						act: () => onChange([...files, one]),
					}))}
				/>
			)}
		</div>
	);
}
