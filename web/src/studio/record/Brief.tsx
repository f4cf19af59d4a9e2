import { useState } from "react";
import { answer, api } from "../../api/client";
import type { BriefDto, BriefGroup, RecordDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { useAct } from "../useAct";
import { Block } from "./Block";
import { Part } from "./BriefPart";

const groups: BriefGroup[] = ["Why", "What", "Frame", "Watch"];

/** Guiding points stay in sight all along; obstacles come back in the phase they concern. */
export function Guides({ brief }: { brief: BriefDto }) {
	if (brief.guides.length + brief.watch.length === 0) return null;
	return (
		<section
			aria-label="Keep in sight"
			className="border-b border-hair py-3 text-[14.3px]"
		>
			<ul className="border-l-4 border-ink pl-3 font-[600] empty:hidden">
				{brief.guides.map((guide) => (
					<li key={guide}>{guide}</li>
				))}
			</ul>
			{brief.watch.map((one) => (
				<p key={one} className="mt-1.5 bg-plaster px-3 py-1">
					<b className="font-[650]">Watch:</b> {one}
				</p>
			))}
		</section>
	);
}

/** The brief in its groups: what is written, and on demand all there is to write. */
export function Brief({
	record,
	onPut,
}: {
	record: RecordDto;
	onPut: () => void;
}) {
	const [open, setOpen] = useState<string>();
	const [all, setAll] = useState(false);
	const act = useAct("below");
	const brief = record.about.brief;
	if (brief.parts.length === 0) return null;
	const filled = brief.parts.filter((part) => part.text).length;
	return (
		<Block
			title="Brief"
			aside={
				<span className="text-soft">
					{brief.state || `${filled} of ${brief.parts.length} parts written`}
				</span>
			}
		>
			{groups.map((group) => {
				const parts = brief.parts.filter(
					(part) =>
						part.group === group && (all || part.text || open === part.key),
				);
				return parts.length === 0 ? null : (
					<div key={group} className="pt-1.5">
						<h3 className="text-[12.5px] font-semibold text-soft">{group}</h3>
						{parts.map((part) => (
							<Part
								key={part.key}
								part={part}
								project={record.id}
								open={open === part.key}
								onOpen={() => setOpen(open === part.key ? undefined : part.key)}
							/>
						))}
					</div>
				);
			})}
			<div className="flex flex-wrap gap-2 pt-2">
				{filled < brief.parts.length && (
					<Button aria-expanded={all} onClick={() => setAll(!all)}>
						{all ? "Only what is written" : "Write the brief"}
					</Button>
				)}
				<Button disabled={filled === 0} onClick={onPut}>
					{brief.state ? "Put it to the client again" : "Put it to the client"}
				</Button>
				{brief.isWithClient && (
					<Button
						disabled={act.busy}
						onClick={() =>
							act.run(() =>
								answer(
									api.POST("/api/projects/{id}/brief/back", {
										params: { path: { id: record.id } },
									}),
								),
							)
						}
					>
						Take it back
					</Button>
				)}
			</div>
			{brief.changed && (
				<p className="under pt-1">
					Changed since it was put to the client: they cannot approve it until
					you put it again.
				</p>
			)}
		</Block>
	);
}
