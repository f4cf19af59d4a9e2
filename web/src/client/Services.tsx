import { Fragment, type ReactNode } from "react";
import type {
	ChoiceLineDto,
	ProposalPageDto,
	QuantityDto,
} from "../api/schema";
import { Choice, Choices } from "../ui/Choice";
import { TextField } from "../ui/TextField";
import { Tick } from "../ui/Tick";
import { MoreOf, Offered } from "./Offered";

export type Chosen = {
	keys: readonly string[];
	quantities: readonly QuantityDto[];
};

/** The services in their three ways: included, one of several, to add. */
export function Services({
	proposal,
	chosen,
	wrong,
	pictureAt,
	narrow,
	onChange,
}: {
	proposal: ProposalPageDto;
	chosen: Chosen;
	/** Laid out as on a phone, however wide the screen is. */
	narrow?: boolean;
	wrong?: (key: string) => string | undefined;
	pictureAt: (hash: string) => string;
	onChange: (chosen: Chosen) => void;
}) {
	const of = (role: ChoiceLineDto["role"]) =>
		proposal.lines.filter((line) => line.role === role);
	const lineOf = (key: string) =>
		proposal.lines.find((line) => line.key === key);
	const groups = [...new Set(of("OneOf").map((line) => line.group ?? ""))];
	const priceOf = (line: ChoiceLineDto) =>
		proposal.priced.lines.find((one) => one.key === line.key)?.net;
	const offered = (line: ChoiceLineDto) => (
		<Offered line={line} price={priceOf(line)} narrow={narrow} />
	);
	const below = (line: ChoiceLineDto, taken: boolean) => (
		<>
			{line.limits && taken && (
				<HowMuch
					line={line}
					value={
						chosen.quantities.find((one) => one.key === line.key)?.quantity ??
						""
					}
					wrong={wrong?.(line.key)}
					onChange={(quantity) =>
						onChange({
							...chosen,
							quantities: [
								...chosen.quantities.filter((one) => one.key !== line.key),
								{ key: line.key, quantity },
							],
						})
					}
				/>
			)}
			<MoreOf line={line} pictureAt={pictureAt} />
		</>
	);
	return (
		<div className="pb-4">
			{of("Included").length > 0 && <Group title="Included" />}
			{of("Included").map((line) => (
				<Fragment key={line.key}>
					<div className="flex gap-2.5 border-t border-hair py-3">
						<Box />
						{offered(line)}
					</div>
					{below(line, true)}
				</Fragment>
			))}
			{groups.map((group) => (
				<Choices
					key={group}
					label={<Group title="Choose one" />}
					value={chosen.keys.find((key) => lineOf(key)?.group === group)}
					className=""
					onChange={(key) =>
						onChange({
							...chosen,
							keys: [
								...chosen.keys.filter((one) => lineOf(one)?.group !== group),
								key,
							],
						})
					}
				>
					{of("OneOf")
						.filter((line) => (line.group ?? "") === group)
						.map((line) => (
							<Fragment key={line.key}>
								<Choice value={line.key} className="border-t border-hair py-3">
									{offered(line)}
								</Choice>
								{below(line, chosen.keys.includes(line.key))}
							</Fragment>
						))}
				</Choices>
			))}
			{of("Extra").length > 0 && <Group title="Add if you like" />}
			{of("Extra").map((line) => (
				<Fragment key={line.key}>
					<Tick
						label={offered(line)}
						className="border-t border-hair py-3"
						checked={chosen.keys.includes(line.key)}
						onChange={(checked) =>
							onChange({
								...chosen,
								keys: checked
									? [...chosen.keys, line.key]
									: chosen.keys.filter((key) => key !== line.key),
							})
						}
					/>
					{below(line, chosen.keys.includes(line.key))}
				</Fragment>
			))}
		</div>
	);
}

function HowMuch({
	line,
	value,
	wrong,
	onChange,
}: {
	line: ChoiceLineDto;
	value: string;
	wrong?: string;
	onChange: (value: string) => void;
}) {
	const { least, most } = line.limits!;
	return (
		<div className="flex items-end gap-2 pb-3 pl-8">
			<div className="w-44">
				<TextField
					label={`How many: ${least} to ${most}${line.unit ? ` ${line.unit}` : ""}`}
					inputMode="decimal"
					className="num text-right"
					value={value}
					wrong={wrong}
					onChange={(e) => onChange(e.target.value)}
				/>
			</div>
		</div>
	);
}

function Group({ title }: { title: ReactNode }) {
	return (
		<div className="pt-4 pb-2 font-head text-[15px] font-[650]">{title}</div>
	);
}

/** What is included is ticked for good: a sign, not a control. */
function Box() {
	return (
		<span
			className="mt-1 grid size-5 shrink-0 place-items-center border-[1.5px] border-brand"
			aria-hidden="true"
		>
			<span className="size-2.5 bg-brand" />
		</span>
	);
}
