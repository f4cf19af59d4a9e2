import { useQueryClient } from "@tanstack/react-query";
import { upload } from "../../api/client";
import { FilePick } from "../../ui/FilePick";
import { Fold } from "../../ui/Fold";
import { Refused } from "../../ui/Refused";
import { useAct } from "../useAct";
import { signedIn } from "./signedIn";

/** A studio that was kept in a backup, brought back into an empty house. */
export function BringBack({ code }: { code: string }) {
	const queries = useQueryClient();
	const act = useAct();
	return (
		<Fold
			className="panel px-5 py-3"
			line={
				<>
					<h2>Bring a studio back</h2>
					<span className="text-soft">from a backup</span>
				</>
			}
		>
			<div className="grid gap-3 pt-3">
				<p>
					A backup is one file, such as gesamt-20270125-030000.tar.gz. It is
					read and checked whole before anything of it is used. Its password
					comes with it.
				</p>
				<Refused of={act.refusal} />
				<div>
					<FilePick
						accept=".gz,application/gzip"
						name="A backup"
						disabled={act.busy}
						onFiles={([file]) => {
							if (file)
								act.run(async () => {
									await upload(
										`/api/set-up/restore?code=${encodeURIComponent(code)}`,
										file,
									);
									await signedIn(queries);
								});
						}}
					>
						{act.busy ? "Reading it" : "Choose the file"}
					</FilePick>
				</div>
			</div>
		</Fold>
	);
}
