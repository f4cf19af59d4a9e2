import { useEffect, useRef, useState } from "react";
import { answer, api } from "../../api/client";
import type { Refusal } from "../../api/refusal";
import type { DraftDto, SaveDraftDto } from "../../api/schema";

/** Keeps the draft a moment after the last change; a stale save keeps this text and says so. */
export function useAutosave(id: number, first: DraftDto) {
	const [draft, setDraft] = useState(first);
	const [offer, setOffer] = useState(first.offer);
	const [contract, setContract] = useState(first.contract);
	const [signing, setSigning] = useState(first.signing);
	const [state, setState] = useState<"kept" | "keeping" | "not kept yet">(
		"kept",
	);
	const [refusal, setRefusal] = useState<Refusal>();
	const edition = useRef(first.edition);
	const saved = useRef({
		offer: first.offer,
		contract: first.contract,
		signing: first.signing,
	});

	useEffect(() => {
		const now = saved.current;
		if (
			now.offer === offer &&
			now.contract === contract &&
			now.signing === signing
		)
			return;
		setState("keeping");
		const timer = setTimeout(async () => {
			const save: SaveDraftDto = {
				edition: edition.current,
				offer,
				contract,
				signing,
			};
			try {
				const kept = await answer(
					api.PUT("/api/projects/{id}/proposal", {
						params: { path: { id } },
						body: save,
					}),
				);
				edition.current = kept.edition;
				saved.current = { offer, contract, signing };
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
	}, [id, offer, contract, signing]);

	/** What the server wrote anew. */
	function take(begun: DraftDto) {
		edition.current = begun.edition;
		saved.current = {
			offer: begun.offer,
			contract: begun.contract,
			signing: begun.signing,
		};
		setDraft(begun);
		setOffer(begun.offer);
		setContract(begun.contract);
		setSigning(begun.signing);
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
		signing,
		setSigning,
		state,
		refusal,
	};
}
