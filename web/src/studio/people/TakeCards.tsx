import { useState } from "react";
import { answer, api } from "../../api/client";
import type { ReadCardsDto } from "../../api/schema";
import { FilePick } from "../../ui/FilePick";
import { Refused } from "../../ui/Refused";
import { useAct } from "../useAct";

/** People out of a vCard file. */
export function TakeCards() {
	const act = useAct();
	const [done, setDone] = useState<ReadCardsDto>();
	return (
		<>
			<FilePick
				accept=".vcf,text/vcard"
				name="Take vCards"
				onFiles={async ([file]) => {
					if (!file) return;
					const text = await file.text();
					await act.run(async () =>
						setDone(
							await answer(api.POST("/api/people/vcards", { body: { text } })),
						),
					);
				}}
			>
				Take vCards
			</FilePick>
			<Refused of={act.refusal} />
			{done && (
				<p role="status" className="w-full font-[650]">
					{done.made} taken over
					{done.known > 0 && `, ${done.known} known already`}
					{done.unreachable.length > 0 &&
						`, left out for want of any address: ${done.unreachable.join(", ")}`}
				</p>
			)}
		</>
	);
}
