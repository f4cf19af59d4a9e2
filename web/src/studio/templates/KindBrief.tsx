import type { BriefPartDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Select } from "../../ui/Select";
import { TextField } from "../../ui/TextField";
import { Tick } from "../../ui/Tick";

export const groups = {
	Why: "Why",
	What: "What",
	Frame: "Frame",
	Watch: "Watch",
} as const;

export const uses = {
	None: "is read",
	Guide: "stays in sight",
	Obstacle: "comes back at its phase",
} as const;

export function Brief({
	parts,
	wrong,
	onChange,
}: {
	parts: readonly BriefPartDto[];
	wrong: (field: string) => string | undefined;
	onChange: (parts: BriefPartDto[]) => void;
}) {
	const set = (at: number, part: Partial<BriefPartDto>) =>
		onChange(parts.map((one, i) => (i === at ? { ...one, ...part } : one)));
	const move = (at: number, by: number) => {
		const next = [...parts];
		const [one] = next.splice(at, 1);
		if (one) next.splice(at + by, 0, one);
		onChange(next);
	};
	return (
		<fieldset className="pt-4">
			<legend className="pb-1 font-[650]">Parts of the brief</legend>
			<ol className="grid gap-2">
				{parts.map((part, i) => (
					<li
						key={part.key}
						aria-label={part.name || "New part"}
						className="grid gap-2 border-b border-hair pb-2 md:grid-cols-[1.6fr_90px_1.2fr_auto_auto_auto]"
					>
						<TextField
							label="Part"
							value={part.name}
							wrong={wrong(`brief[${i}].name`) ?? wrong(`brief[${i}].key`)}
							onChange={(e) => set(i, { name: e.target.value })}
						/>
						<Select
							label="Group"
							value={part.group}
							onChange={(e) =>
								set(i, { group: e.target.value as BriefPartDto["group"] })
							}
						>
							{Object.entries(groups).map(([group, words]) => (
								<option key={group} value={group}>
									{words}
								</option>
							))}
						</Select>
						<Select
							label="It"
							value={part.use}
							onChange={(e) =>
								set(i, { use: e.target.value as BriefPartDto["use"] })
							}
						>
							{Object.entries(uses).map(([use, words]) => (
								<option key={use} value={use}>
									{words}
								</option>
							))}
						</Select>
						<Tick
							label="mine alone"
							checked={part.private}
							onChange={(mine) => set(i, { private: mine })}
						/>
						<Tick
							label="after booking"
							checked={part.afterBooking}
							onChange={(afterBooking) => set(i, { afterBooking })}
						/>
						<span className="flex gap-2 self-end pb-2 text-small">
							<Button
								kind="word"
								disabled={i === 0}
								onClick={() => move(i, -1)}
							>
								up<span className="sr-only">: {part.name}</span>
							</Button>
							<Button
								kind="word"
								disabled={i === parts.length - 1}
								onClick={() => move(i, 1)}
							>
								down<span className="sr-only">: {part.name}</span>
							</Button>
							<Button
								kind="word"
								onClick={() => onChange(parts.filter((_, at) => at !== i))}
							>
								take out<span className="sr-only">: {part.name}</span>
							</Button>
						</span>
					</li>
				))}
			</ol>
			<Button
				className="mt-2"
				onClick={() =>
					onChange([
						...parts,
						{
							key: `part-${parts.length + 1}-${Date.now() % 100000}`,
							name: "",
							group: "Why",
							use: "None",
							private: false,
							from: null,
							afterBooking: false,
						},
					])
				}
			>
				Add a part
			</Button>
		</fieldset>
	);
}
