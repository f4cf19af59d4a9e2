import { newKey } from "../../api/client";
import type { RunDayDto, RunFor, RunItemDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { CountField } from "../../ui/CountField";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";
import { TimeField } from "../../ui/TimeField";
import { dayWords } from "./dayWords";

const readers: [RunFor, string][] = [
	["Everybody", "everybody"],
	["Suppliers", "suppliers"],
	["Guests", "guests"],
	["Me", "only me"],
];

/** A new item of a day, at the hour behind the last one. */
const fresh = (day: number, before?: RunItemDto): RunItemDto => ({
	key: newKey(),
	day,
	start: before?.start ?? "09:00:00",
	length: "",
	what: "",
	where: "",
	who: "",
	for: "Everybody",
	earlier: null,
});

/** The items of a run sheet, day by day. */
export function RunItems({
	items,
	days,
	earlier,
	wrong,
	onChange,
}: {
	items: RunItemDto[];
	/** The days as the server words them. */
	days: readonly RunDayDto[];
	earlier: number;
	wrong: (key: string, field: string) => string | undefined;
	onChange: (items: RunItemDto[]) => void;
}) {
	const used = items.map((one) => one.day);
	const first = Math.min(...used);
	const last = Math.max(...used);
	const all =
		items.length === 0
			? [0]
			: Array.from({ length: last - first + 1 }, (_, i) => first + i);
	const wordsOf = (day: number) =>
		days.find((one) => one.day === day)?.words ?? dayWords(day);
	const shortOf = (day: number) =>
		days.find((one) => one.day === day)?.short ?? dayWords(day);
	const add = (day: number) =>
		onChange([
			...items,
			fresh(day, items.filter((one) => one.day === day).at(-1)),
		]);
	return (
		<div className="grid gap-5">
			<div>
				<Button onClick={() => add(first === Infinity ? -1 : first - 1)}>
					Something on the day before
				</Button>
			</div>
			{all.map((day) => (
				<section key={day} aria-label={wordsOf(day)}>
					<h2 className="rule pb-1">{wordsOf(day)}</h2>
					{used.includes(day) && <ColumnHeads />}
					{items
						.filter((one) => one.day === day)
						.map((item) => (
							<Item
								key={item.key}
								item={item}
								days={[first - 1, ...all, last + 1]
									.filter(Number.isFinite)
									.map((one) => [one, shortOf(one)])}
								earlier={earlier}
								wrong={(field) => wrong(item.key, field)}
								onChange={(part) =>
									onChange(
										items.map((one) =>
											one.key === item.key ? { ...one, ...part } : one,
										),
									)
								}
								onTakeOut={() =>
									onChange(items.filter((one) => one.key !== item.key))
								}
							/>
						))}
					<Button className="mt-2" onClick={() => add(day)}>
						Add something
						<span className="sr-only"> on {wordsOf(day)}</span>
					</Button>
				</section>
			))}
			<div>
				<Button onClick={() => add(last === -Infinity ? 1 : last + 1)}>
					Something on the day after
				</Button>
			</div>
		</div>
	);
}

function Item({
	item,
	days,
	earlier,
	wrong,
	onChange,
	onTakeOut,
}: {
	item: RunItemDto;
	days: [number, string][];
	earlier: number;
	wrong: (field: string) => string | undefined;
	onChange: (part: Partial<RunItemDto>) => void;
	onTakeOut: () => void;
}) {
	const guests = item.for === "Everybody" || item.for === "Guests";
	const text = (field: "what" | "where" | "who" | "length") => ({
		value: item[field],
		wrong: wrong(field),
		onChange: (e: { target: { value: string } }) =>
			onChange({ [field]: e.target.value }),
	});
	return (
		<fieldset className={`${columns} border-b border-hair py-3 lg:py-1.5`}>
			<legend className="sr-only">{item.what || "Something new"}</legend>
			<TimeField
				label="True start"
				value={item.start}
				wrong={wrong("start")}
				onChange={(start) => start && onChange({ start })}
			/>
			<div className="max-lg:order-first max-lg:col-span-2">
				<TextField label="What happens" {...text("what")} />
			</div>
			<TextField label="How long" {...text("length")} />
			<TextField label="Where" {...text("where")} />
			<TextField label="Who" {...text("who")} />
			<Select
				label="For"
				value={item.for}
				onChange={(e) => onChange({ for: e.target.value as RunFor })}
			>
				{readers.map(([reader, words]) => (
					<option key={reader} value={reader}>
						{words}
					</option>
				))}
			</Select>
			{guests ? (
				<CountField
					label="Guests earlier, min"
					min={0}
					max={240}
					value={item.earlier ?? earlier}
					wrong={wrong("earlier")}
					onChange={(minutes) => onChange({ earlier: minutes })}
				/>
			) : (
				<span />
			)}
			<Select
				label="Day"
				value={item.day}
				wrong={wrong("day")}
				onChange={(e) => onChange({ day: Number(e.target.value) })}
			>
				{days.map(([day, words]) => (
					<option key={day} value={day}>
						{words}
					</option>
				))}
			</Select>
			<Button className="self-end" onClick={onTakeOut}>
				Take out<span className="sr-only">: {item.what}</span>
			</Button>
		</fieldset>
	);
}

/** One line on a wide screen, its words in the head above; each field under its own words on a narrow one. */
const columns =
	"grid grid-cols-2 gap-x-3 gap-y-2 lg:grid-cols-[84px_minmax(150px,1fr)_104px_120px_120px_116px_70px_152px_84px] lg:gap-x-2 lg:[&_.label]:sr-only";

const heads = [
	"True start",
	"What happens",
	"How long",
	"Where",
	"Who",
	"For",
	"Guests, min earlier",
	"Day",
];

function ColumnHeads() {
	return (
		<div
			aria-hidden
			className={`${columns} items-end py-1 text-small text-soft max-lg:hidden`}
		>
			{heads.map((head) => (
				<span key={head}>{head}</span>
			))}
		</div>
	);
}
