import { answer, api } from "../../api/client";
import type { ImportDto, MatchingDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { FilePick } from "../../ui/FilePick";
import { Progress } from "../../ui/Progress";
import { Refused } from "../../ui/Refused";
import { Places } from "./BesidePlaces";
import { amounts } from "./besideWords";
import { NotKept } from "./NotKept";
import { useHandIn } from "./useHandIn";

/** Letters and files that come along with a table, and the rows they go to. */
export function Beside({
	table,
	onChange,
}: {
	table: ImportDto;
	onChange: (matching: MatchingDto) => void;
}) {
	const { handing, busy, refusal, handIn, stop, run } = useHandIn(table.id);
	const { beside } = table;
	const { sum } = handing ?? {};
	return (
		<section aria-label="Letters and files of these projects">
			<h2 className="rule pb-1.5">Letters and files of these projects</h2>
			<p className="max-w-3xl py-2 text-soft">
				They can come along: mailboxes and messages (.mbox, .eml), and the
				folder your files lie in. Each goes to the row whose number, mail
				address or name it says. Letters stand at their own dates; nothing of it
				moves a project or writes to anybody.
			</p>
			<div className="flex flex-wrap gap-2">
				<FilePick
					multiple
					name="Add letters"
					disabled={busy}
					onFiles={(files) => handIn(files, true)}
				>
					Add letters
				</FilePick>
				<FilePick
					folder
					multiple
					name="Add a folder of files"
					disabled={busy}
					onFiles={(files) => handIn(files)}
				>
					Add a folder of files
				</FilePick>
				{busy && <Button onClick={stop}>Stop</Button>}
				{!busy && beside.letters + beside.files > 0 && (
					<Button
						onClick={() =>
							run(() =>
								answer(
									api.DELETE("/api/imports/{id}/beside", {
										params: { path: { id: table.id } },
									}),
								),
							)
						}
					>
						Take them away again
					</Button>
				)}
			</div>
			{busy && handing && (
				<Progress
					label="Files handed in"
					percent={(100 * handing.done) / handing.of}
				/>
			)}
			<div role="status" className="pt-2">
				{!busy && handing && sum && (
					<p>
						{amounts(sum.letters, sum.files)} handed in
						{sum.known > 0 && `, ${sum.known} known already`}
						{sum.unread > 0 && `, ${sum.unread} could not be read`}.
					</p>
				)}
			</div>
			{handing && handing.refused.length > 0 && (
				<NotKept refused={handing.refused} />
			)}
			<Refused of={refusal} />
			{beside.places.length > 0 && <Places table={table} onChange={onChange} />}
		</section>
	);
}
