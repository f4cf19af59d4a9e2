import { useState } from "react";
import { answer, api, upload } from "../../api/client";
import type { ReadCardsDto } from "../../api/schema";
import { FilePick } from "../../ui/FilePick";
import { tableFiles } from "../../ui/files/tables";
import { Refused } from "../../ui/Refused";
import { useAct } from "../useAct";

/** People out of a vCard file, or of a table. */
export function TakeCards() {
	const act = useAct();
	const [done, setDone] = useState<ReadCardsDto>();
	return (
		<>
			<FilePick
				accept={`.vcf,text/vcard,${tableFiles}`}
				onFiles={([file]) =>
					file && act.run(async () => setDone(await taken(file)))
				}
			>
				Take vCards or a table of people
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

async function taken(file: File): Promise<ReadCardsDto> {
	if (!file.name.toLowerCase().endsWith(".vcf"))
		return upload<ReadCardsDto>("/api/people/table", file);
	const text = await file.text();
	return answer(api.POST("/api/people/vcards", { body: { text } }));
}
