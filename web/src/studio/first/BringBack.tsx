import { useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { answer, api, upload } from "../../api/client";
import type { BroughtBackDto, FoundArchiveDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { FilePick } from "../../ui/FilePick";
import { Fold } from "../../ui/Fold";
import { Refused } from "../../ui/Refused";
import { TextField } from "../../ui/TextField";
import { useAct } from "../useAct";
import { signedIn } from "./signedIn";

/** A studio that was kept in a backup or an archive, brought back into an empty house. */
export function BringBack({ code }: { code: string }) {
	const queries = useQueryClient();
	const act = useAct();
	const [found, setFound] = useState<FoundArchiveDto | null>(null);
	return (
		<Fold
			className="panel px-5 py-3"
			heading={{ level: 2, title: "Bring a studio back" }}
			line={<span className="text-soft">from a backup or an archive</span>}
		>
			<div className="grid gap-3 pt-3">
				<p>
					A backup is one file, such as gesamt-20270125-030000.tar.gz; its
					password comes with it. An archive is one too, such as
					gesamt-archive-20270125-103000.zip. Either is read and checked whole
					before anything of it is used.
				</p>
				<Refused of={act.refusal} />
				<div>
					<FilePick
						accept=".gz,.zip,application/gzip,application/zip"
						name="A backup or an archive"
						disabled={act.busy}
						onFiles={([file]) => {
							if (file)
								act.run(async () => {
									setFound(null);
									const { archive } = await upload<BroughtBackDto>(
										`/api/set-up/restore?code=${encodeURIComponent(code)}`,
										file,
									);
									if (archive) setFound(archive);
									else await signedIn(queries);
								});
						}}
					>
						{act.busy && !found ? "Reading it" : "Choose the file"}
					</FilePick>
				</div>
				{found && <Found archive={found} code={code} />}
			</div>
		</Fold>
	);
}

/** An archive that was read and found whole: it goes without a password, so one is chosen. */
function Found({ archive, code }: { archive: FoundArchiveDto; code: string }) {
	const queries = useQueryClient();
	const act = useAct();
	const [password, setPassword] = useState("");
	function takeIn(event: FormEvent) {
		event.preventDefault();
		act.run(async () => {
			await answer(
				api.POST("/api/set-up/archive", { body: { password, code } }),
			);
			await signedIn(queries, password);
		});
	}
	return (
		<form
			onSubmit={takeIn}
			className="grid gap-3 border-t border-hair pt-3"
			noValidate
		>
			<p role="status">
				The archive of {archive.studio}, made on {archive.made}. It is whole.{" "}
				{archive.opensLinks
					? "Links in letters that were sent go on to open."
					: "Links in letters that were sent before do not open any more: new letters carry new ones."}
			</p>
			{archive.leftBehind.length > 0 && (
				<div>
					<p>What was missing when it was made, and is missing in it:</p>
					<ul className="under">
						{archive.leftBehind.map((left) => (
							<li key={left}>{left}</li>
						))}
					</ul>
				</div>
			)}
			<TextField
				label="Choose a password for it"
				type="password"
				autoComplete="new-password"
				autoFocus
				value={password}
				wrong={act.refusal?.of("password")}
				onChange={(e) => setPassword(e.target.value)}
			/>
			<Refused of={act.refusal} />
			<div>
				<Button kind="go" type="submit" disabled={act.busy}>
					{act.busy ? "Taking it in" : "Take it in"}
				</Button>
			</div>
		</form>
	);
}
