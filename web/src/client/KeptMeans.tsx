import { useState } from "react";
import { answer, api } from "../api/client";
import type { Refusal } from "../api/refusal";
import type { ClientPageDto } from "../api/schema";
import { Button } from "../ui/Button";
import { Refused } from "../ui/Refused";

/** What is kept to be charged, with the words that were agreed to, and the way out. */
export function KeptMeans({
	page,
	link,
	onDone,
}: {
	page: ClientPageDto;
	link: string;
	onDone: () => void;
}) {
	const [refusal, setRefusal] = useState<Refusal>();
	const { kept } = page.booking.ways;
	if (!kept) return null;
	async function takeBack() {
		setRefusal(undefined);
		try {
			await answer(
				api.POST("/p/{link}/api/kept-means/take-back", {
					params: { path: { link } },
				}),
			);
			onDone();
		} catch (refused) {
			setRefusal(refused as Refusal);
		}
	}
	return (
		<section aria-label="Charged by itself" className="mb-8 max-w-xl">
			<h2 className="rule pb-1.5">Charged by itself</h2>
			<p className="pt-2">Your {kept.words}.</p>
			<p className="under pt-1">
				On {kept.since} you agreed: “{kept.consent}”
			</p>
			<Refused of={refusal} />
			<Button className="mt-3" onClick={takeBack}>
				I take my consent back
			</Button>
		</section>
	);
}
