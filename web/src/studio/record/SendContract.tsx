import type { RecordDto, SentDto } from "../../api/schema";
import { post } from "../../ui/http";
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
				post<SentDto>(`/api/projects/${record.id}/contract/send`, letter)
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
