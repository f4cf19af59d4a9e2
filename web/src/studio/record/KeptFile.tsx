import { answer, api } from "../../api/client";
import type { KeptFileDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { LookAt } from "../../ui/files/LookAt";
import { Refused } from "../../ui/Refused";
import { useUndo } from "../../ui/Undo";
import { useAct } from "../useAct";
import { Thumb } from "./Thumb";

export function Kept({
	project,
	file,
	seen,
}: {
	project: number;
	file: KeptFileDto;
	/** Whether the part of the client page it stands in is open. */
	seen: boolean;
}) {
	const act = useAct();
	const offer = useUndo();
	const params = { path: { id: project, file: file.id } };
	const remove = (removed: boolean) =>
		act.run(() =>
			answer(
				api.POST("/api/projects/{id}/files/{file}/removed", {
					params,
					body: { removed },
				}),
			),
		);
	return (
		<li className="flex gap-2.5 py-1 text-[14.3px]">
			<Thumb
				address={
					file.look === "Picture" ? `/api/files/${file.id}/preview` : undefined
				}
				name={file.name}
			/>
			<span className="min-w-0 flex-1">
				<Button asChild kind="word" className="block truncate">
					<a href={`/api/files/${file.id}`}>{file.name}</a>
				</Button>
				<span className="under block">
					{file.about}
					{file.use && `. ${file.use}`}.{" "}
					<span className={file.shown ? "font-[650] text-ink" : ""}>
						{!file.shown
							? "private"
							: seen
								? "shown"
								: "shown once its part opens"}
					</span>
				</span>
				<span className="flex flex-wrap gap-x-3 text-small whitespace-nowrap">
					<LookAt
						look={file.look}
						address={`/api/files/${file.id}`}
						name={file.name}
					/>
					<Button
						kind="word"
						disabled={act.busy}
						onClick={() =>
							act.run(() =>
								answer(
									api.POST("/api/projects/{id}/files/{file}/shown", {
										params,
										body: { shown: !file.shown, use: null },
									}),
								),
							)
						}
					>
						{file.shown ? "Hide from the client" : "Show to the client"}
						<span className="sr-only">: {file.name}</span>
					</Button>
					<Button
						kind="word"
						disabled={act.busy}
						onClick={async () => {
							if (await remove(true))
								offer({
									words: `Taken out: ${file.name}`,
									undo: () => remove(false),
								});
						}}
					>
						Take out
						<span className="sr-only">: {file.name}</span>
					</Button>
				</span>
				<Refused of={act.refusal} />
			</span>
		</li>
	);
}
