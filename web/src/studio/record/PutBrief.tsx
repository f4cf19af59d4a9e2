import { answer, api } from "../../api/client";
import type { RecordDto } from "../../api/schema";
import { Carried } from "./Carried";

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
				answer(
					api.POST("/api/projects/{id}/brief/put", {
						params: { path: { id: record.id } },
						body: letter,
					}),
				)
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
