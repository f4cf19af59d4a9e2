import { answer, api } from "../../api/client";
import type { RecordDto } from "../../api/schema";
import { Carried } from "./Carried";

/** Puts the contract of a price that was agreed outside to the client. */
export function SendContract({
	record,
	onClose,
}: {
	record: RecordDto;
	onClose: () => void;
}) {
	return (
		<Carried
			project={record.id}
			title="Send the contract"
			template="contract"
			button="Send the contract"
			onClose={onClose}
			send={(letter) =>
				answer(
					api.POST("/api/projects/{id}/contract/send", {
						params: { path: { id: record.id } },
						body: letter,
					}),
				)
			}
		>
			{() => (
				<p className="under">
					Its text is that of this kind of work, filled with the price and the
					payments that were agreed. Your client reads and signs it on their
					page.
				</p>
			)}
		</Carried>
	);
}
