import { useQuery } from "@tanstack/react-query";
import { answer, api } from "../../api/client";
import type { BackupsDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { Shown } from "../../ui/Shown";
import { Section } from "../templates/Section";
import { useAct } from "../useAct";

/** The whole studio in one file: nightly, and whenever it is wanted. */
export function Backups() {
	const backups = useQuery({
		queryKey: ["backups"],
		queryFn: () => answer(api.GET("/api/backups")),
	});
	return (
		<Section
			title="Backups"
			under={
				backups.data
					? `${backups.data.kept.length} kept. ${backups.data.nightly}`
					: ""
			}
		>
			<Shown query={backups}>{(data) => <Kept backups={data} />}</Shown>
		</Section>
	);
}

function Kept({ backups }: { backups: BackupsDto }) {
	const act = useAct();
	return (
		<div className="grid gap-3">
			<p className={backups.failed ? "font-[650]" : ""}>{backups.nightly}</p>
			<p className="under">
				They lie in {backups.folder}. Keep a copy on another disk as well. To
				bring one back, start Gesamt with an empty folder: its first page takes
				the file.
			</p>
			{backups.kept.length > 0 && (
				<ul className="border-t border-hair">
					{backups.kept.map((one) => (
						<li
							key={one.name}
							className="flex flex-wrap gap-x-4 border-b border-hair py-1.5"
						>
							<Button asChild kind="word">
								<a
									href={`/api/backups/${encodeURIComponent(one.name)}`}
									download
								>
									{one.when}
								</a>
							</Button>
							<span className="num text-soft">{one.size}</span>
						</li>
					))}
				</ul>
			)}
			<Refused of={act.refusal} />
			<div>
				<Button
					disabled={act.busy}
					onClick={() => act.run(() => answer(api.POST("/api/backups")))}
				>
					{act.busy ? "One moment" : "Make a backup now"}
				</Button>
			</div>
		</div>
	);
}
