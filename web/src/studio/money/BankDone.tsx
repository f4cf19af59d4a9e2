import { Link } from "react-router";
import { answer, api } from "../../api/client";
import type { BankDoneDto, BankFileDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { useAct } from "../useAct";
import { useBankLine } from "./BankLine";

/** What was booked or set aside, the newest first; each can be undone. */
export function BankDone({ lines }: { lines: readonly BankDoneDto[] }) {
	const alone = lines.filter((line) => line.byItself);
	const said = lines.filter((line) => !line.byItself);
	return (
		<>
			<Lines title="Booked by themselves" lines={alone}>
				A line whose reference is one invoice’s, and whose amount is what that
				owes, is booked without asking.
			</Lines>
			{said.length > 0 && (
				<Lines title="Booked or set aside by you" lines={said} />
			)}
		</>
	);
}

function Lines({
	title,
	lines,
	children,
}: {
	title: string;
	lines: readonly BankDoneDto[];
	children?: string;
}) {
	return (
		<section aria-label={title}>
			<h2 className="rule pb-1.5">{title}</h2>
			<ul>
				{lines.map((line) => (
					<Line key={line.id} line={line} />
				))}
			</ul>
			{lines.length === 0 && <p className="py-3 text-soft">{children}</p>}
		</section>
	);
}

function Line({ line }: { line: BankDoneDto }) {
	const act = useBankLine(line.id);
	return (
		<li className="border-b border-hair py-1.5">
			<p className="flex gap-3">
				<span className="min-w-0 flex-1">
					{line.party || "no name"} <span className="under">{line.on}</span>
				</span>
				<b className="num">{line.amount}</b>
			</p>
			<p className="under flex gap-3">
				<span className="min-w-0 flex-1">
					{line.paid.length === 0
						? line.cost || "set aside"
						: line.paid.map((one, i) => (
								<span key={one.number}>
									{i > 0 && ", "}
									<Button asChild kind="word">
										<Link to={`/projects/${one.project}`}>{one.number}</Link>
									</Button>
								</span>
							))}
				</span>
				<Button kind="word" disabled={act.busy} onClick={act.undo}>
					Undo
					<span className="sr-only">
						: {line.amount} from {line.party}
					</span>
				</Button>
			</p>
			<Refused of={act.refusal} />
		</li>
	);
}

/** The files that were taken in. */
export function BankFiles({ files }: { files: readonly BankFileDto[] }) {
	const act = useAct();
	if (files.length === 0) return null;
	return (
		<section aria-label="Statements">
			<h2 className="rule pb-1.5">Statements</h2>
			<ul>
				{files.map((file) => (
					<li key={file.id} className="border-b border-hair py-1.5">
						<span className="break-words">{file.name}</span>
						<p className="under flex gap-3">
							<span className="min-w-0 flex-1">
								{file.at}; {file.lines === 1 ? "1 line" : `${file.lines} lines`}
								, {file.new} new
							</span>
							<Button
								kind="word"
								disabled={act.busy}
								onClick={() =>
									act.run(() =>
										answer(
											api.DELETE("/api/bank/statements/{id}", {
												params: { path: { id: file.id } },
											}),
										),
									)
								}
							>
								Take it back
								<span className="sr-only">: {file.name}</span>
							</Button>
						</p>
					</li>
				))}
			</ul>
			<Refused of={act.refusal} />
		</section>
	);
}
