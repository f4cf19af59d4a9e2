import { Fold } from "../../ui/Fold";
import { TextArea } from "../../ui/TextArea";
import { OwnFile, SigningFields } from "../contract/SigningFields";
import type { useAutosave } from "./useAutosave";

/** The contract that goes with a proposal, or the text of an amendment, and how it is signed. */
export function ContractPart({
	saved,
}: {
	saved: ReturnType<typeof useAutosave>;
}) {
	const { draft, contract, signing, refusal, setContract, setSigning } = saved;
	const set = (part: Partial<typeof signing>) =>
		setSigning({ ...signing, ...part });
	return (
		<div id="offer-contract">
			<Fold
				line={
					<b className="font-head font-[650]">
						{draft.amends
							? "Its text, and who signs it"
							: "Contract that goes with it, and who signs it"}
					</b>
				}
			>
				<div className="grid gap-4 pt-2">
					{!signing.file && (
						<TextArea
							label={draft.amends ? "Text of the amendment" : "Contract text"}
							rows={16}
							value={contract}
							wrong={refusal?.of("text")}
							hint={
								draft.amends
									? "Blanks in square brackets are filled from what changes when it goes."
									: "Blanks in square brackets are filled from the record and the choice when it is accepted."
							}
							onChange={(e) => setContract(e.target.value)}
						/>
					)}
					{!draft.amends && (
						<OwnFile
							file={signing.file}
							wrong={refusal?.of("file")}
							onChange={(file) => set({ file })}
						/>
					)}
					<SigningFields
						signing={signing}
						who={draft.who}
						wrong={refusal?.of("signers")}
						onChange={setSigning}
					/>
				</div>
			</Fold>
		</div>
	);
}
