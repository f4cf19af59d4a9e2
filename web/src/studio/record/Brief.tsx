import { useCallback, useEffect, useRef, useState } from "react";
import type {
	BriefGroup,
	BriefPartOfDto,
	RecordDto,
	SaveBriefDto,
	SentDto,
} from "../../api/schema";
import { Alert, TextArea } from "../../ui/Fields";
import { post, put, type Refusal } from "../../ui/http";
import { useKept } from "../../ui/useKept";
import { useAct } from "../useAct";
import { Block } from "./Block";
import { Carried } from "./Carried";

const groups: BriefGroup[] = ["Why", "What", "Frame", "Watch"];

/** Guiding points stay in sight all along; obstacles come back in the phase they concern. */
export function Guides({ brief }: { brief: RecordDto["briefParts"] }) {
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
	const act = useAct();
	const brief = record.briefParts;
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
					<button
						type="button"
						className="btn"
						aria-expanded={all}
						onClick={() => setAll(!all)}
					>
						{all ? "Only what is written" : "Write the brief"}
					</button>
				)}
				<button
					type="button"
					className="btn"
					disabled={filled === 0}
					onClick={onPut}
				>
					{brief.state ? "Put it to the client again" : "Put it to the client"}
				</button>
				{brief.state.startsWith("with the client") && (
					<button
						type="button"
						className="btn"
						disabled={act.busy}
						onClick={() =>
							act.run(() => post(`/api/projects/${record.id}/brief/back`))
						}
					>
						Take it back
					</button>
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

function Part({
	part,
	project,
	open,
	onOpen,
}: {
	part: BriefPartOfDto;
	project: number;
	open: boolean;
	onOpen: () => void;
}) {
	return (
		<div className="border-b border-hair py-1 text-[14.3px] last:border-0">
			<button
				type="button"
				className="w-full text-left"
				aria-expanded={open}
				onClick={onOpen}
			>
				<span className="under">
					{part.name}
					{part.private && ", mine alone"}
					{part.later && !part.text && ", after booking"}
				</span>
				{!open && part.text && (
					<span className="block whitespace-pre-line">{part.text}</span>
				)}
			</button>
			{open && <Write key={part.edition} part={part} project={project} />}
		</div>
	);
}

/** Kept by itself a moment after the last key; what another window wrote meanwhile is shown beside it. */
function Write({ part, project }: { part: BriefPartOfDto; project: number }) {
	const [text, setText, forget] = useKept(
		`brief:${project}:${part.key}`,
		part.text,
	);
	const [refusal, setRefusal] = useState<Refusal>();
	const act = useAct();
	const keep = useCallback(
		async (said: string) => {
			try {
				await put(`/api/projects/${project}/brief/${part.key}`, {
					text: said,
					edition: part.edition,
				});
				forget();
				await act.run(async () => undefined);
			} catch (error) {
				setRefusal(error as Refusal);
			}
		},
		[project, part, forget, act.run],
	);
	const timer = useRef(0);
	useEffect(() => {
		if (text === part.text) return;
		timer.current = window.setTimeout(() => keep(text), 900);
		return () => clearTimeout(timer.current);
	}, [text, part.text, keep]);
	const theirs = refusal?.theirs as SaveBriefDto | undefined;
	return (
		<div className="pt-1">
			<TextArea
				label={part.name}
				hidden
				rows={4}
				autoFocus
				hint={
					part.use === "Obstacle"
						? "one a line; “paint: damp in the corner” comes back with that phase"
						: text === part.text
							? "kept"
							: "kept in a moment"
				}
				value={text}
				wrong={refusal?.of("text")}
				onChange={(e) => setText(e.target.value)}
				// leaving it keeps it at once: the next part may close this one
				onBlur={() => {
					clearTimeout(timer.current);
					if (text !== part.text) keep(text);
				}}
			/>
			{refusal && <Alert>{refusal.message}</Alert>}
			{theirs && (
				<p className="pt-1 whitespace-pre-line">
					The other text: {theirs.text}
				</p>
			)}
		</div>
	);
}

/** Puts the brief to the client for approval, with a letter. */
export function PutBrief({
	record,
	onClose,
}: {
	record: RecordDto;
	onClose: () => void;
}) {
	return (
		<Carried
			project={record.id}
			title="Put the brief to the client"
			template="brief"
			button="Put it to the client"
			onClose={onClose}
			send={(letter) =>
				post<SentDto>(`/api/projects/${record.id}/brief/put`, letter)
			}
		>
			{() => (
				<p className="under">
					They read every part that is not yours alone, and approve it or say
					what should be different. Obstacles never leave the house.
				</p>
			)}
		</Carried>
	);
}
