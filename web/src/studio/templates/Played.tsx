import { useState } from "react";
import type { RehearsedDto } from "../../api/schema";
import { Button } from "../../ui/Button";

/** What would happen, wound through step by step or shown to its end. */
export function Played({ events }: { events: readonly RehearsedDto[] }) {
	const [shown, setShown] = useState(1);
	const [open, setOpen] = useState<number>();
	const all = shown >= events.length;
	if (events.length === 0)
		return (
			<p className="py-4 text-soft">
				Nothing would happen: none of its steps is for this project.
			</p>
		);
	return (
		<div className="pt-4">
			<div className="flex flex-wrap items-center gap-3 pb-2">
				<b className="num font-[650]">
					{events[Math.min(shown, events.length) - 1]?.when ?? "the end"}
				</b>
				<span className="text-soft">
					{Math.min(shown, events.length)} of {events.length}
				</span>
				<Button disabled={all} onClick={() => setShown(shown + 1)}>
					Wind on
				</Button>
				<Button disabled={all} onClick={() => setShown(events.length)}>
					To the end
				</Button>
				<Button disabled={shown === 1} onClick={() => setShown(1)}>
					Back to the beginning
				</Button>
			</div>
			<ol aria-label="What would happen" aria-live="polite">
				{events.slice(0, shown).map((event, i) => (
					<li
						key={i}
						className="grid grid-cols-[130px_22px_1fr] text-[14.5px] max-md:grid-cols-[90px_22px_1fr]"
					>
						<time className="pt-[3px] pr-2.5 text-right text-small text-soft">
							{event.when ?? "never yet"}
						</time>
						<span className="relative ml-[9px] border-l-2 border-dotted border-soft">
							<span
								className={`absolute top-1.5 -left-[7px] size-3 ${mark(event)}`}
							/>
						</span>
						<span className="px-2 pt-px pb-2.5">
							{event.subject ? (
								<Button
									kind="line"
									className="hover:underline"
									aria-expanded={open === i}
									onClick={() => setOpen(open === i ? undefined : i)}
								>
									{event.words}
								</Button>
							) : (
								event.words
							)}
							{event.to && (
								<span className="block text-small text-soft">
									to {event.to}
								</span>
							)}
							{event.gaps && (
								<span className="block text-small font-[650]">
									It would wait for: {event.gaps}
								</span>
							)}
							{open === i && (
								<span className="panel mt-2 block p-3 whitespace-pre-line">
									<b className="block pb-2 font-[650]">{event.subject}</b>
									{event.body}
								</span>
							)}
						</span>
					</li>
				))}
			</ol>
		</div>
	);
}

function mark({ act }: RehearsedDto): string {
	if (act === "Client")
		return "bg-theirs [clip-path:polygon(0_0,65%_0,100%_50%,65%_100%,0_100%)]";
	if (act === "Acts") return "bg-ink";
	if (act === "AsksFirst") return "border-2 border-ink bg-plaster";
	return "border-2 border-dotted border-soft bg-plaster";
}
