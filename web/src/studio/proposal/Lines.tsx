import type { DraftDto, LineRole, OfferLineDto } from "../../api/schema";
import { moved, Sortable, SortableItem } from "../../ui/Sortable";
import { AddLine } from "./AddLine";
import { BeginList } from "./Begin";
import { Line } from "./Line";

/** The services of a proposal in their three ways, each line pressed to be changed. */
export function Lines({
	project,
	draft,
	lines,
	gross,
	open,
	wrong,
	onOpen,
	onChange,
	onLeaveOut,
	onBegun,
}: {
	project: number;
	draft: DraftDto;
	lines: readonly OfferLineDto[];
	gross: boolean;
	/** The line that is being changed. */
	open?: string;
	wrong: (at: number, field: string) => string | undefined;
	onOpen: (key?: string) => void;
	onChange: (lines: OfferLineDto[]) => void;
	onLeaveOut: (key: string) => void;
	onBegun: (draft: DraftDto) => void;
}) {
	const set = (key: string, part: Partial<OfferLineDto>) =>
		onChange(
			lines.map((line) => (line.key === key ? { ...line, ...part } : line)),
		);
	const groups = groupsOf(lines);
	return (
		<div id="offer-lines" className="pb-2">
			{lines.length === 0 && (
				<>
					<p className="py-2 text-soft">
						No service yet. Add what is included, what {draft.client} chooses
						between, and what can be added; or begin from one of these.
					</p>
					<BeginList project={project} onBegun={onBegun} />
				</>
			)}
			{groups.map((group) => (
				<section key={group.title} aria-label={group.title}>
					<h3 className="pt-2 pb-1 text-[13px] text-soft">{group.title}</h3>
					<Sortable
						label={group.title}
						keys={group.lines.map((line) => line.key)}
						onMove={(from, to) =>
							onChange(inPlaceOf(lines, moved(group.lines, from, to)))
						}
					>
						{group.lines.map((line) => (
							<SortableItem
								key={line.key}
								id={line.key}
								name={line.title || "the new service"}
								className="group bg-sheet"
							>
								{(handle) => (
									<Line
										line={line}
										handle={handle}
										open={open === line.key}
										priced={draft.each.find((one) => one.key === line.key)}
										taken={draft.priced?.lines.some(
											(one) => one.key === line.key,
										)}
										wrong={(field) =>
											wrong(
												lines.findIndex((one) => one.key === line.key),
												field,
											)
										}
										onOpen={(now) => onOpen(now ? line.key : undefined)}
										onChange={(part) => set(line.key, part)}
										onLeaveOut={() => onLeaveOut(line.key)}
									/>
								)}
							</SortableItem>
						))}
					</Sortable>
				</section>
			))}
			<AddLine
				project={project}
				gross={gross}
				lines={lines}
				onAdd={(line) => {
					onChange([...lines, line]);
					onOpen(line.key);
				}}
			/>
		</div>
	);
}

type Group = { title: string; lines: OfferLineDto[] };

function groupsOf(lines: readonly OfferLineDto[]): Group[] {
	const of = (role: LineRole) => lines.filter((line) => line.role === role);
	const names = [...new Set(of("OneOf").map((line) => line.group ?? ""))];
	return [
		{ title: "Included", lines: of("Included") },
		...names.map((name) => ({
			title:
				names.length > 1
					? `One is chosen: ${name || "no name yet"}`
					: "One is chosen",
			lines: of("OneOf").filter((line) => (line.group ?? "") === name),
		})),
		{ title: "May be added", lines: of("Extra") },
	].filter((group) => group.lines.length > 0);
}

/** All lines, those of one group in their new order where they stood. */
function inPlaceOf(
	lines: readonly OfferLineDto[],
	order: readonly OfferLineDto[],
): OfferLineDto[] {
	const keys = new Set(order.map((line) => line.key));
	const next = [...order];
	return lines.map((line) => (keys.has(line.key) ? next.shift()! : line));
}
