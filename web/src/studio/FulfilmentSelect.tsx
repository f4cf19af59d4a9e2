import type { Fulfilment } from "../api/schema";
import { Select } from "../ui/Select";

/** What fulfils a task, as the end of “closes by itself when …”. */
export const fulfilments: Record<NonNullable<Fulfilment>, string> = {
	ProposalSent: "the proposal is sent",
	ContractSent: "the contract is sent",
	ContractSigned: "they sign",
	PaymentReceived: "a payment comes in",
	MeetingHeld: "a talk was held",
	FormReturned: "they return a form",
	DraftPutUp: "a draft is put up",
	DraftApproved: "they approve a draft",
	HandedOver: "the work is handed over",
	Approved: "they approve the work",
};

/** Chooses what ticks a task off by itself. */
export function FulfilmentSelect({
	value,
	onChange,
}: {
	value: Fulfilment | null;
	onChange: (value: Fulfilment | null) => void;
}) {
	return (
		<Select
			label="Done when"
			value={value ?? ""}
			onChange={(e) => onChange((e.target.value || null) as Fulfilment | null)}
		>
			<option value="">I tick it off</option>
			{Object.entries(fulfilments).map(([key, words]) => (
				<option key={key} value={key}>
					{words}
				</option>
			))}
		</Select>
	);
}
