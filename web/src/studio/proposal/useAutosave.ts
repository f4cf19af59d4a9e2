import { useEffect, useRef, useState } from "react";
import { answer, api } from "../../api/client";
import type { Refusal } from "../../api/refusal";
import type { DraftDto, SaveDraftDto } from "../../api/schema";

/** Keeps the draft a moment after the last change; a stale save keeps this text and says so. */
export function useAutosave(id: number, first: DraftDto) {
	const [draft, setDraft] = useState(first);
	const [offer, setOffer] = useState(first.offer);
	const [contract, setContract] = useState(first.contract);
	const [state, setState] = useState<"kept" | "keeping" | "not kept yet">(
		"kept",
	);
	const [refusal, setRefusal] = useState<Refusal>();
	const edition = useRef(first.edition);
	const saved = useRef({ offer: first.offer, contract: first.contract });

	useEffect(() => {
		if (saved.current.offer === offer && saved.current.contract === contract)
			return;
		setState("keeping");
		const timer = setTimeout(async () => {
			const save: SaveDraftDto = { edition: edition.current, offer, contract };
			try {
				const kept = await answer(
					api.PUT("/api/projects/{id}/proposal", {
						params: { path: { id } },
						body: save,
					}),
				);
				edition.current = kept.edition;
				saved.current = { offer, contract };
				setDraft(kept);
				setRefusal(undefined);
				setState("kept");
			} catch (error) {
				const refused = error as Refusal;
				// written in another window: the next save is meant to replace it
				const theirs = refused.theirs as DraftDto | undefined;
				if (theirs) edition.current = theirs.edition;
				setRefusal(refused);
				setState("not kept yet");
			}
		}, 400);
		return () => clearTimeout(timer);
	}, [id, offer, contract]);

	/** What the server wrote anew. */
	function take(begun: DraftDto) {
		edition.current = begun.edition;
		saved.current = { offer: begun.offer, contract: begun.contract };
		setDraft(begun);
		setOffer(begun.offer);
		setContract(begun.contract);
		setState("kept");
		setRefusal(undefined);
	}

	return {
		take,
		draft,
		offer,
		contract,
		change: setOffer,
		setContract,
		state,
		refusal,
	};
}
