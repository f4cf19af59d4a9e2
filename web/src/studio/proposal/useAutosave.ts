import { answer, api } from "../../api/client";
import type { DraftDto } from "../../api/schema";
import { useDraft } from "../useDraft";

/** A proposal that is kept as it is typed, with its contract and who signs it. */
export function useAutosave(id: number, first: DraftDto) {
	const { value, change, ...kept } = useDraft(
		first,
		({ offer, contract, signing }: DraftDto) => ({ offer, contract, signing }),
		(edition, written) =>
			answer(
				api.PUT("/api/projects/{id}/proposal", {
					params: { path: { id } },
					body: { edition, ...written },
				}),
			),
	);
	return {
		...kept,
		...value,
		change: (offer: typeof value.offer) => change((now) => ({ ...now, offer })),
		setContract: (contract: typeof value.contract) =>
			change((now) => ({ ...now, contract })),
		setSigning: (signing: typeof value.signing) =>
			change((now) => ({ ...now, signing })),
	};
}
